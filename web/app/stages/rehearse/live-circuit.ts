import { Component, computed, inject, signal } from '@angular/core';
import { voltsAt } from '@tactron/core/trace';
import { Choice } from '../../controls/choice';
import { OpenJob } from '../../job-state/open-job';
import { Leads } from './leads';
import { RehearsalSession } from './session';

/** Below this a wire lies at the reference, V. */
const NOTHING_V = 0.5;

/** The circuit as it stands now: every wire by what is on it, each landing a place for a lead. */
@Component({
  selector: 'tac-live-circuit',
  imports: [Choice],
  template: `
    @if (drawing(); as d) {
      <p class="legend small">
        <tac-choice
          [dense]="true"
          label="Circuit"
          [options]="views"
          [value]="view()"
          (changed)="view.set($event)"
        />
        <span><i class="live"></i> voltage</span><span><i></i> 0 V</span
        ><span><i class="floating"></i> floating</span>
      </p>
      <div class="scroll">
        <svg
          [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height"
          [style.width.px]="d.width * 0.8"
          role="img"
          aria-label="Circuit with the voltage of every wire; the device’s list tells the same"
        >
          @for (device of d.devices; track device.id) {
            <rect
              [attr.x]="device.x"
              [attr.y]="device.y"
              [attr.width]="device.width"
              [attr.height]="device.height"
              rx="5"
            />
            <text
              class="tag"
              [attr.x]="device.x + 9"
              [attr.y]="device.main ? device.y + device.height - 8 : device.y + 19"
            >
              {{ device.tag }}
            </text>
            @for (t of device.terminals; track t.landing) {
              <g class="terminal" (click)="leads.put(t.landing)">
                <circle
                  [attr.cx]="t.x"
                  [attr.cy]="t.y"
                  r="7"
                  [class.lead]="t.landing === leads.plus() || t.landing === leads.minus()"
                />
                <text class="name" [attr.x]="t.x" [attr.y]="device.main ? t.y + 24 : t.y - 11">
                  {{ t.name }}
                </text>
              </g>
            }
          }
          @for (w of wires(); track w.id) {
            <g (click)="leads.wire.set(w.id)" [class]="w.is" [class.broken]="w.broken">
              <title>wire {{ w.number }}: {{ w.text }}</title>
              <polyline class="reach" [attr.points]="w.points" />
              <polyline class="line" [attr.points]="w.points" />
              <text class="number" [attr.x]="w.x" [attr.y]="w.y - 4">{{ w.label }}</text>
            </g>
          }
        </svg>
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
    }
    .legend {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      align-items: center;
    }
    i {
      display: inline-block;
      width: 26px;
      border-top: 2px solid var(--ink);
      vertical-align: middle;
    }
    i.live {
      border-top: 4px solid var(--copper);
    }
    i.floating {
      border-top: 2px dashed var(--ink-soft);
    }
    .scroll {
      overflow: auto;
    }
    svg {
      display: block;
    }
    rect {
      fill: var(--paper);
      stroke: var(--line-strong);
    }
    circle {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    circle.lead {
      fill: var(--focus);
    }
    text {
      fill: var(--ink);
      font-size: 13px;
    }
    .tag {
      font-weight: 700;
    }
    .name,
    .number {
      text-anchor: middle;
    }
    .number {
      paint-order: stroke;
      stroke: var(--sheet);
      stroke-width: 4px;
      font-size: 12px;
    }
    .line {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.6;
    }
    .live .line {
      stroke: var(--copper);
      stroke-width: 4;
    }
    .live .number {
      font-weight: 700;
    }
    .floating .line {
      stroke: var(--ink-soft);
      stroke-dasharray: 6 4;
    }
    .broken .line {
      stroke: var(--bad);
      stroke-dasharray: 2 5;
    }
    .reach {
      fill: none;
      stroke: transparent;
      stroke-width: 14px;
    }
    g {
      cursor: pointer;
    }
  `,
})
export class LiveCircuit {
  private readonly open = inject(OpenJob);
  private readonly session = inject(RehearsalSession);
  protected readonly leads = inject(Leads);
  protected readonly view = signal<string>('control');
  protected readonly views = [
    { value: 'control', name: 'Control' },
    { value: 'power', name: 'Power' },
  ];
  protected readonly drawing = computed(
    () => this.open.derived()?.[this.view() === 'power' ? 'power' : 'control'] ?? null,
  );

  protected readonly wires = computed(() => {
    const opened = this.session.opened();
    const drawn = this.drawing()?.wires ?? [];
    const now = this.session.shownUs();
    const ends = new Map(opened?.wires.map((w) => [w.id, w] as const));
    const broken = this.leads.broken();
    const earth = opened?.landings.indexOf('supply:PE') ?? -1;
    return drawn.map((w) => {
      const at = ends.get(w.id)?.to;
      // A circuit that is not joined to the device's 0 V is told against earth.
      const against = (reference: number) =>
        opened && at !== undefined && reference >= 0
          ? voltsAt(opened.trace, at, reference, now)
          : null;
      const v = against(opened?.reference ?? -1) ?? against(earth);
      const volts = v ? Math.max(v.ac, Math.abs(v.dc)) : 0;
      const text =
        v === null ? 'floating' : v.ac > 1 ? `${Math.round(v.ac)} V~` : `${v.dc.toFixed(1)} V`;
      const is = v === null ? 'floating' : volts > NOTHING_V ? 'live' : 'nothing';
      return {
        id: w.id,
        number: w.number,
        points: w.points.map((p) => p.join(',')).join(' '),
        x: w.label[0],
        y: w.label[1],
        is,
        text,
        label: is === 'live' ? `${w.number} · ${text}` : w.number,
        broken: broken.has(w.id),
      };
    });
  });
}
