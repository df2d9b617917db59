import { Directive, ElementRef, computed, inject, input, signal, DestroyRef } from '@angular/core';

/** Sizes between which a drawing is shown, of its own units in pixels. */
const LEAST = 0.35;
const MOST = 3;
/** Size from which its texts can be read: it is not made smaller to fit. */
const READABLE = 0.82;
const BIGGEST_FIT = 1.25;
const STEP = 1.25;

/**
 * Shows a drawing as wide as there is room for it while its texts can be read, larger or smaller on wish: by buttons, by
 * the wheel with Ctrl, or by two fingers. What does not fit is scrolled.
 */
@Directive({
  selector: '[tacZoom]',
  exportAs: 'zoom',
  host: {
    '(wheel)': 'wheel($event)',
    '(touchmove)': 'pinch($event)',
    '(touchend)': 'spread = 0',
  },
})
export class Zoom {
  private readonly host: HTMLElement = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Width of the drawing in its own units. */
  readonly natural = input.required<number>();
  /** Also made smaller than can be read, so that all of it is seen. */
  readonly whole = input(false);
  private readonly room = signal(0);
  private readonly factor = signal(1);
  private readonly fit = computed(() => {
    const share = (this.room() || this.natural()) / Math.max(1, this.natural());
    return Math.min(BIGGEST_FIT, this.whole() ? share : Math.max(READABLE, share));
  });
  readonly scale = computed(() => Math.min(MOST, Math.max(LEAST, this.fit() * this.factor())));
  readonly width = computed(() => this.natural() * this.scale());
  readonly text = computed(() => `${Math.round(100 * this.scale())} %`);

  constructor() {
    const seen = new ResizeObserver(() => this.room.set(this.host.clientWidth));
    seen.observe(this.host);
    inject(DestroyRef).onDestroy(() => seen.disconnect());
  }

  larger(): void {
    this.factor.update((f) => f * STEP);
  }

  smaller(): void {
    this.factor.update((f) => f / STEP);
  }

  fitted(): void {
    this.factor.set(1);
  }

  /** Distance of two fingers when they were last seen, px. */
  protected spread = 0;

  protected pinch(event: TouchEvent): void {
    const [a, b] = Array.from(event.touches);
    if (!b) return;
    event.preventDefault();
    const spread = Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY);
    const before = this.spread;
    if (before > 0 && spread > 0) this.factor.update((f) => (f * spread) / before);
    this.spread = spread;
  }

  protected wheel(event: WheelEvent): void {
    if (!event.ctrlKey) return;
    event.preventDefault();
    if (event.deltaY < 0) this.larger();
    else this.smaller();
  }
}
