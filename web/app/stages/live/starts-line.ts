import { Component, DestroyRef, computed, inject, input, signal } from '@angular/core';
import type { SaidStep } from '@tactron/core/said';
import { minutesText } from '@tactron/core/units';

const TICK_MS = 1000;

/** Starts that the acts of these steps take, each act once. */
export const startsOf = (steps: readonly SaidStep[]): number =>
  steps.reduce((sum, s) => sum + (s.step.starts ?? 0), 0);

/** Moment of the last answer of an act that took a start, before the act of a step; undefined where none was given. */
export function lastStartMs(step: SaidStep, steps: readonly SaidStep[]): number | undefined {
  const fed = new Set(steps.filter((s) => s.step.starts).map((s) => s.step.act));
  const times = steps.flatMap((s) =>
    s.step.act !== step.step.act && fed.has(s.step.act) && s.reading
      ? [Date.parse(s.reading.atClient)]
      : [],
  );
  return times.length > 0 ? Math.max(...times) : undefined;
}

/** What an act takes of the starts that motor and device bear, and how long the motor still cools before it. */
@Component({
  selector: 'tac-starts-line',
  template: `
    @if (takes() > 0) {
      <p class="soft small">
        Takes {{ takes() }} {{ takes() === 1 ? 'start' : 'starts' }}; {{ used() }} of
        {{ all() }} taken so far.
      </p>
    }
    @if (cools(); as left) {
      <p class="cools" role="timer">
        Wait: the motor’s image cools for <b class="mono">{{ left }}</b> yet, by simulation.
      </p>
    }
  `,
  styles: `
    p {
      margin: 0;
    }
    .cools {
      padding: 6px 10px;
      border-left: 4px solid var(--accent-line);
      background: var(--paper);
    }
  `,
})
export class StartsLine {
  readonly step = input.required<SaidStep>();
  readonly steps = input.required<readonly SaidStep[]>();
  private readonly nowMs = signal(Date.now());

  protected readonly takes = computed(() =>
    startsOf(this.steps().filter((s) => s.step.act === this.step().step.act)),
  );
  protected readonly all = computed(() => startsOf(this.steps()));
  protected readonly used = computed(() => {
    const done = new Set(this.steps().flatMap((s) => (s.reading ? [s.step.act] : [])));
    return startsOf(this.steps().filter((s) => done.has(s.step.act)));
  });
  protected readonly cools = computed(() => {
    const minutes = this.step().step.do.args['coolMin'];
    const since = lastStartMs(this.step(), this.steps());
    if (typeof minutes !== 'number' || since === undefined || this.step().reading) return '';
    const left = (since + minutes * 60_000 - this.nowMs()) / 1000;
    return left > 0 ? minutesText(left) : '';
  });

  constructor() {
    const timer = setInterval(() => this.nowMs.set(Date.now()), TICK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
