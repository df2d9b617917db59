import { Component, computed, input } from '@angular/core';
import type { DialMark } from '@tactron/core/printed';

/** A dial turns this far from its one end to the other, degrees: the usual angle of a potentiometer. */
const TURN = 270;
const R = 40;

/** Place on the scale, from the lower left end clockwise round. */
function at(pct: number, radius: number): { readonly x: number; readonly y: number } {
  const angle = ((90 + (360 - TURN) / 2 + (TURN * pct) / 100) * Math.PI) / 180;
  return { x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
}

/** A paper scale to lie under the knob of a dial: a mark for each place with what the machine then does. */
@Component({
  selector: 'tac-dial-scale',
  template: `<svg viewBox="-78 -64 156 120" role="img" [attr.aria-label]="label()">
    <path [attr.d]="arc" fill="none" stroke="currentColor" stroke-width="1.4" />
    @for (m of placed(); track m.pct) {
      <line
        [attr.x1]="m.from.x"
        [attr.y1]="m.from.y"
        [attr.x2]="m.to.x"
        [attr.y2]="m.to.y"
        stroke="currentColor"
        stroke-width="1.6"
      />
      <text
        [attr.x]="m.text.x"
        [attr.y]="m.text.y + 3"
        [attr.text-anchor]="m.text.x < -6 ? 'end' : m.text.x > 6 ? 'start' : 'middle'"
        font-size="9"
        fill="currentColor"
      >
        {{ m.told }}
      </text>
    }
    <text y="4" text-anchor="middle" font-size="11" font-weight="700" fill="currentColor">
      {{ tag() }}
    </text>
    <text y="16" text-anchor="middle" font-size="8" fill="currentColor">{{ unit() }}</text>
  </svg>`,
  styles: 'svg { display: block; width: 100%; height: 100%; }',
})
export class DialScale {
  readonly tag = input.required<string>();
  readonly unit = input.required<string>();
  readonly marks = input.required<readonly DialMark[]>();
  protected readonly arc = ((): string => {
    const [a, b] = [at(0, R), at(100, R)];
    return `M${a.x.toFixed(2)} ${a.y.toFixed(2)}A${R} ${R} 0 1 1 ${b.x.toFixed(2)} ${b.y.toFixed(2)}`;
  })();
  protected readonly placed = computed(() =>
    this.marks().map(({ pct, text }) => ({
      pct,
      told: text,
      from: at(pct, R - 4),
      to: at(pct, R + 4),
      text: at(pct, R + 8),
    })),
  );
  protected readonly label = computed(
    () =>
      `Scale of ${this.tag()}: ${this.marks()
        .map((m) => `${m.pct} % ${m.text} ${this.unit()}`)
        .join(', ')}`,
  );
}
