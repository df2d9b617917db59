import { Component, DestroyRef, computed, effect, inject, signal } from '@angular/core';
import { Compute } from '../../compute/compute';
import type { Opened } from '../../compute/rehearse.worker';
import { OpenJob } from '../../job-state/open-job';
import { lanePath, valueAt } from '../rehearse/lane-reader';

const WIDTH = 420;

interface Lane {
  readonly name: string;
  readonly path: string;
  readonly high: string;
  readonly low: string;
}

/** A strip of what this very job does: start, stop, start again, power cut and return. */
@Component({
  selector: 'tac-timing-strip',
  template: `
    @if (lanes().length) {
      <figure>
        <div class="acts" aria-hidden="true">
          @for (mark of marks(); track mark.at) {
            <span [style.left.%]="mark.at" [class.up]="$even">{{ mark.text }}</span>
          }
        </div>
        @for (lane of lanes(); track lane.name) {
          <div class="lane">
            <div class="name">{{ lane.name }}</div>
            <svg [attr.viewBox]="'0 0 ' + width + ' 40'" preserveAspectRatio="none" aria-hidden="true"><path [attr.d]="lane.path" /></svg>
            <div class="scale mono">
              <span>{{ lane.high }}</span><span>{{ lane.low }}</span>
            </div>
          </div>
        }
        <figcaption>{{ caption() }}</figcaption>
      </figure>
    }
  `,
  styles: `
    figure {
      margin: 0;
      padding: 12px;
      border: 1px solid var(--line);
      border-radius: 8px;
      background: var(--sheet);
    }
    .acts {
      position: relative;
      height: 34px;
      margin: 0 52px 0 92px;
      font-size: 12px;
      color: var(--ink-soft);
    }
    .acts span {
      position: absolute;
      bottom: 2px;
      border-left: 1.5px solid var(--accent-line);
      padding-left: 4px;
      line-height: 1.1;
      white-space: nowrap;
    }
    .acts .up {
      padding-bottom: 17px;
    }
    .lane {
      display: grid;
      grid-template-columns: 92px 1fr 52px;
      align-items: center;
    }
    .name {
      font-size: 13px;
      padding-right: 8px;
    }
    svg {
      width: 100%;
      height: 44px;
      border-bottom: 1px solid var(--line);
    }
    path {
      fill: none;
      stroke: var(--accent-line);
      stroke-width: 2;
      vector-effect: non-scaling-stroke;
    }
    .scale {
      display: flex;
      flex-direction: column;
      justify-content: space-between;
      height: 40px;
      padding-left: 6px;
      font-size: 12px;
      color: var(--ink-soft);
    }
    figcaption {
      margin-top: 8px;
      font-weight: 600;
    }
  `,
})
export class TimingStrip {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly opened = signal<Opened | null>(null);
  private readonly session = this.compute.rehearsal(() => this.opened.set(null));
  protected readonly width = WIDTH;

  private readonly strip = computed(() => this.open.derived()?.strip ?? null);

  protected readonly marks = computed(() => (this.strip()?.marks ?? []).map(({ atMs, text }) => ({ at: (100 * atMs) / (this.strip()?.endMs ?? 1), text })));

  protected readonly lanes = computed<readonly Lane[]>(() => {
    const [opened, strip] = [this.opened(), this.strip()];
    if (!opened || !strip) return [];
    const hz = Math.max(1, ...(opened.trace.segments[opened.trace.signals.findIndex((s) => s.id === 'drive.hz')]?.y.map(Math.abs) ?? [1]));
    const lane = (name: string, id: string, low: number, high: number, unit: string): Lane => ({
      name, path: lanePath(opened.trace, id, 0, strip.endMs * 1000, WIDTH, 40, low, high), high: unit ? `${Math.round(high)} ${unit}` : '', low: unit ? `0 ${unit}` : '',
    }); // prettier-ignore
    return [
      lane('Supply', 'supply.on', 0, 1, ''),
      ...strip.controls.map((c) => lane(c.tag, `${c.id}.position`, 0, c.positions - 1, '')),
      lane('Output', 'drive.hz', 0, hz, 'Hz'),
    ];
  });

  protected readonly caption = computed(() => {
    const [opened, strip] = [this.opened(), this.strip()];
    if (!opened || !strip) return '';
    if (Math.abs(valueAt(opened.trace, 'drive.hz', (strip.endMs - 1000) * 1000)) > 0) return 'After the power cut the motor starts by itself.';
    const again = strip.pulse ? `${strip.controls[0]?.tag} is pressed again` : 'the contact is opened and closed again';
    return `After the power cut the motor stays stopped until ${again}.`;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.session.end());
    effect(() => {
      const [job, profile, strip] = [this.open.job(), this.open.profile(), this.strip()];
      if (!job?.adopted || !profile || !strip) return this.opened.set(null);
      void this.session.worker
        .open(
          job,
          profile,
          strip.settings,
          strip.acts.map((act) => ({ t: act.atMs * 1000, act })),
        ) // prettier-ignore
        .then(() => this.session.worker.reach(0, strip.endMs * 1000))
        .then((frame) => this.opened.set({ ...frame, landings: [], reference: 0, names: {}, wires: [], devices: [], links: {}, polePairs: 2 }));
    });
  }
}
