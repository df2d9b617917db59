import { Component, DestroyRef, computed, inject, input, signal } from '@angular/core';
import type { SaidStep } from '@tactron/core/said';
import { minutesText } from '@tactron/core/units';
import { OpenJob } from '../../job-state/open-job';

const TICK_MS = 1000;
/** Checks that are done when the link has discharged. */
const waits = ['dead.isolate.link', 'dead.isolate.wait'];
/** A countdown of an earlier isolation says nothing of this one. */
const FORGOTTEN_MS = 12 * 3600 * 1000;

/** The wait until the DC link has discharged, counted from the moment at which the supply was switched off. */
@Component({
  selector: 'tac-discharge-line',
  template: `
    @if (seconds(); as s) {
      @if (left(); as time) {
        <p class="waits" role="timer">
          DC link: wait <b class="mono">{{ time }}</b> yet{{
            measured() ? ', then measure. The measurement counts, not the time' : ''
          }}.
        </p>
      } @else if (since()) {
        <p class="waits">
          {{ s }} s are over since it was switched off{{
            measured() ? ': now measure. The measurement counts, not the time' : ''
          }}.
        </p>
      } @else {
        <p class="waits">
          The DC link keeps its charge for {{ s }} s after the supply is off.
          <button class="act" type="button" (click)="begin(s)">Switched off now</button>
        </p>
      }
    }
  `,
  styles: `
    .waits {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: center;
      margin: 0;
      padding: 6px 10px;
      border-left: 4px solid var(--accent-line);
      background: var(--paper);
    }
  `,
})
export class DischargeLine {
  private readonly open = inject(OpenJob);
  readonly step = input.required<SaidStep>();
  private readonly nowMs = signal(Date.now());

  /** Time to wait, s; nothing where the step has nothing to do with it, or was done. */
  protected readonly seconds = computed(() => {
    const { act } = this.step().step;
    if (act !== 'dead.isolate') return 0;
    const { dead = [], dischargeS = 0 } = this.open.derived() ?? {};
    const open = dead.some(({ step, state }) => waits.includes(step.key) && state !== 'pass');
    return open ? dischargeS : 0;
  });
  /** The link has terminals at which it is measured. */
  protected readonly measured = computed(
    () => this.open.derived()?.dead.some((s) => s.step.key === 'dead.isolate.link') ?? false,
  );
  protected readonly since = computed(() => {
    const last = this.open
      .evidence()
      .findLast((e) => e.kind === 'countdown' && e.body.what === 'discharge');
    const at = last?.kind === 'countdown' ? Date.parse(last.body.startedAt) : 0;
    // What was switched on again since has charged the link again.
    const live = this.open
      .evidence()
      .findLast((e) => e.kind === 'isolation' && e.body.state !== 'DEAD');
    const charged = live ? Date.parse(live.atClient) : 0;
    return at > charged && this.nowMs() - at < FORGOTTEN_MS ? at : 0;
  });
  /** How long is to be waited yet, as minutes and seconds; empty where nothing is counted. */
  readonly left = computed(() => {
    const left = (this.since() + this.seconds() * 1000 - this.nowMs()) / 1000;
    return this.since() > 0 && left > 0 ? minutesText(left) : '';
  });

  constructor() {
    const timer = setInterval(() => this.nowMs.set(Date.now()), TICK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected begin(seconds: number): void {
    const startedAt = new Date().toISOString();
    this.open.record('countdown', 'dead.isolate', {
      version: 1,
      what: 'discharge',
      startedAt,
      seconds,
    });
    this.nowMs.set(Date.now());
  }
}
