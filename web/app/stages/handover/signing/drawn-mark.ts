import {
  afterNextRender,
  Component,
  DestroyRef,
  ElementRef,
  inject,
  viewChild,
} from '@angular/core';
import SignaturePad from 'signature_pad';

/** Width and height in which a drawn mark is kept, whatever the field's size on the screen. */
export const MARK_BOX = { width: 300, height: 90 } as const;
/** Points of a mark that are kept: what a hand draws in half a minute. */
const MOST_POINTS = 1500;

/**
 * Strokes as an SVG path in the box of marks; empty where nothing was drawn.
 *
 * @param strokes points in a field of the given width and height
 * @example markPath([[{ x: 0, y: 0 }, { x: 10, y: 5 }]], 300, 90) // 'M0 0L10 5'
 */
export function markPath(
  strokes: readonly (readonly { readonly x: number; readonly y: number }[])[],
  width: number,
  height: number,
): string {
  const scale = Math.min(MARK_BOX.width / width, MARK_BOX.height / height);
  const at = (x: number): number => Math.round(10 * scale * Math.max(0, x)) / 10;
  const points = strokes.reduce((sum, s) => sum + s.length, 0);
  const step = Math.max(1, Math.ceil(points / MOST_POINTS));
  return strokes
    .flatMap((stroke) =>
      stroke
        .filter((_, i) => i % step === 0 || i === stroke.length - 1)
        .map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${at(x)} ${at(y)}`),
    )
    .join('');
}

/** A field to draw one's mark in, by finger, pen or mouse. */
@Component({
  selector: 'tac-drawn-mark',
  template: `
    <canvas
      #pad
      class="pad"
      width="600"
      height="180"
      role="img"
      aria-label="Field to draw your mark in; it may be left empty"
    ></canvas>
    <button class="act" type="button" (click)="clear()">Clear the mark</button>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: end;
    }
    .pad {
      width: min(300px, 100%);
      aspect-ratio: 300 / 90;
      border: 1px solid var(--line-strong);
      border-bottom: 2px solid var(--ink);
      background: #fff;
      touch-action: none;
    }
  `,
})
export class DrawnMark {
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('pad');
  private pad: SignaturePad | undefined;

  constructor() {
    // The canvas has twice the size of its box, so that the line is sharp; the pad is told so by its context.
    afterNextRender(() => {
      const canvas = this.canvas().nativeElement;
      const scale = canvas.width / (canvas.clientWidth || MARK_BOX.width);
      canvas.getContext('2d')?.scale(scale, scale);
      this.pad = new SignaturePad(canvas, { penColor: '#10222c', minWidth: 1, maxWidth: 2.2 });
    });
    inject(DestroyRef).onDestroy(() => this.pad?.off());
  }

  /** What was drawn, as an SVG path; undefined where nothing was. */
  path(): string | undefined {
    const canvas = this.canvas().nativeElement;
    const strokes = this.pad?.toData().map(({ points }) => points) ?? [];
    return (
      markPath(
        strokes,
        canvas.clientWidth || MARK_BOX.width,
        canvas.clientHeight || MARK_BOX.height,
      ) || undefined
    );
  }

  clear(): void {
    this.pad?.clear();
  }
}
