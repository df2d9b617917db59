import { Component, computed, inject, input, output, signal } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { lanePath, valueAt } from './lane-reader';
import { RehearsalSession } from './session';

export interface LaneSpec {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly states?: readonly string[];
}

const WIDTH = 800;

/** Signals over time, with a cursor that can be moved and a table of the values there. */
@Component({
  selector: 'tac-lanes',
  template: `
    <div class="tools">
      <span class="mono">{{ clock(session.nowUs()) }}</span>
      <label class="small"
        >window
        <select [value]="spanS()" (change)="spanS.set(+$any($event.target).value)" aria-label="Window in seconds">
          @for (s of [5, 10, 20, 60]; track s) {
            <option [value]="s" [selected]="s === spanS()">{{ s }} s</option>
          }
        </select>
      </label>
      @if (cursorUs() !== null) {
        <span class="mono">cursor {{ clock(cursorUs()!) }} · Δ {{ clock(session.nowUs() - cursorUs()!) }}</span>
        <button class="act quiet" type="button" (click)="cursorUs.set(null)">clear cursor</button>
      } @else {
        <span class="small soft">Click in the lanes to set a cursor.</span>
      }
    </div>
    <div class="lanes" (pointerdown)="place($event)">
      @for (lane of drawn(); track lane.spec.id) {
        <div class="lane" [class.tall]="lane.spec.unit === 'Hz'">
          <div class="name">{{ lane.spec.name }}</div>
          <svg [attr.viewBox]="'0 0 ' + width + ' 40'" preserveAspectRatio="none" aria-hidden="true">
            <path [attr.d]="lane.path" />
            @if (cursorX(); as x) {
              <line [attr.x1]="x" [attr.x2]="x" y1="0" y2="40" />
            }
          </svg>
          <div class="value mono">{{ lane.text }}</div>
        </div>
      }
    </div>
  `,
  styles: `
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 14px;
      align-items: center;
      min-height: 36px;
    }
    .lane {
      display: grid;
      grid-template-columns: 104px 1fr 104px;
      align-items: center;
      border-bottom: 1px solid var(--line);
    }
    .name {
      font-size: 13px;
      padding-right: 8px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .value {
      font-size: 13px;
      padding-left: 8px;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    svg {
      width: 100%;
      height: 24px;
      cursor: crosshair;
    }
    .tall svg {
      height: 62px;
    }
    path {
      fill: none;
      stroke: var(--accent-line);
      stroke-width: 2;
      vector-effect: non-scaling-stroke;
    }
    line {
      stroke: var(--focus);
      stroke-width: 1.5;
      vector-effect: non-scaling-stroke;
    }
    select {
      font: inherit;
      background: var(--field);
      color: var(--ink);
      border: 1px solid var(--line-strong);
      border-radius: 4px;
      min-height: 30px;
    }
  `,
})
export class Lanes {
  readonly specs = input.required<readonly LaneSpec[]>();
  readonly sought = output<number>();
  protected readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  protected readonly width = WIDTH;
  protected readonly spanS = signal(10);
  protected readonly cursorUs = signal<number | null>(null);

  /** Right edge of the window: at most ten new pictures a second. */
  private readonly edgeUs = computed(() => Math.max(Math.ceil(this.session.nowUs() / 100_000) * 100_000, this.spanS() * 1e6));

  protected readonly drawn = computed(() => {
    const trace = this.session.trace();
    const now = this.session.nowUs();
    const edge = this.edgeUs();
    if (!trace) return [];
    const from = edge - this.spanS() * 1e6;
    const at = this.cursorUs() ?? now;
    const share = Math.min(1, (now - from) / (edge - from));
    return this.specs().map((spec) => ({
      spec,
      path: lanePath(trace, spec.id, from, Math.max(from + 1, now), WIDTH * share, 40, spec.low, spec.high),
      text: this.text(spec, valueAt(trace, spec.id, at)),
    }));
  });

  protected readonly cursorX = computed(() => {
    const cursor = this.cursorUs();
    if (cursor === null) return null;
    const from = this.edgeUs() - this.spanS() * 1e6;
    return cursor < from ? null : ((cursor - from) / (this.spanS() * 1e6)) * WIDTH;
  });

  protected place(event: PointerEvent): void {
    const svg = (event.target as Element).closest('svg');
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const t = this.edgeUs() - this.spanS() * 1e6 * (1 - (event.clientX - box.left) / box.width);
    this.cursorUs.set(Math.min(Math.max(0, Math.round(t)), this.session.nowUs()));
  }

  protected clock(us: number): string {
    return `${formatNumber(us / 1e6, 3, this.preferences.decimal())} s`;
  }

  private text(spec: LaneSpec, value: number): string {
    if (spec.states) return spec.states[value] ?? '';
    if (spec.unit === '') return value >= 0.5 ? 'on' : 'off';
    return `${formatNumber(value, 1, this.preferences.decimal())} ${spec.unit}`;
  }
}
