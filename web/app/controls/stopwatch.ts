import { Component, DestroyRef, computed, inject, input, output, signal } from '@angular/core';

const TICK_MS = 100;

/** Time of the page, ms: a clock that nobody sets. */
const now = (): number => performance.now();

/** Counts from a touch to the next one; what it counted is given on, to a tenth of a second. */
@Component({
  selector: 'tac-stopwatch',
  template: `
    <button class="act wide" type="button" [attr.aria-pressed]="running()" (click)="press()">
      {{ running() ? 'Stop' : label() }}
    </button>
    <span class="mono" role="timer" [attr.aria-label]="'Counted'">{{ shown() }}</span>
    @if (note()) {
      <span class="soft small">{{ note() }}</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 14px;
    }
    span.mono {
      font-size: 22px;
      min-width: 5ch;
    }
  `,
})
export class Stopwatch {
  readonly label = input('Start the watch');
  /** What it is to reach, in words. */
  readonly note = input('');
  /** Seconds between the two touches. */
  readonly took = output<number>();
  protected readonly running = signal(false);
  private readonly seconds = signal(0);
  private fromMs = 0;
  private timer: ReturnType<typeof setInterval> | undefined;
  protected readonly shown = computed(() => `${this.seconds().toFixed(1)} s`);

  constructor() {
    inject(DestroyRef).onDestroy(() => clearInterval(this.timer));
  }

  protected press(): void {
    if (this.running()) return this.stop();
    this.fromMs = now();
    this.seconds.set(0);
    this.running.set(true);
    this.timer = setInterval(() => this.seconds.set((now() - this.fromMs) / 1000), TICK_MS);
  }

  private stop(): void {
    clearInterval(this.timer);
    this.running.set(false);
    const took = Math.round((now() - this.fromMs) / 100) / 10;
    this.seconds.set(took);
    this.took.emit(took);
  }
}
