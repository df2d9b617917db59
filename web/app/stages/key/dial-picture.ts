import { Component, computed, input } from '@angular/core';
import type { SaidLine } from '@tactron/core/said';

type Shape = NonNullable<SaidLine['shape']>;

/** Travel of a dial: from its lowest mark, left below, clockwise to its highest, right below. */
const FROM_DEG = -140;
const TRAVEL_DEG = 280;
const MARKS = 8;
/** Steps between marks that are read without counting. */
const STEPS = [0.5, 1, 2, 5, 10, 20, 50, 100] as const;

/** Marks of a dial: both ends, and round values between them. */
function marksOf(min: number, max: number): number[] {
  const step = STEPS.find((x) => (max - min) / x <= MARKS) ?? STEPS[STEPS.length - 1];
  const round: number[] = [];
  for (let x = Math.ceil(min / step) * step; x <= max + 1e-9; x += step) round.push(x);
  const inner = round.filter((x) => x - min > step / 2 && max - x > step / 2);
  return [min, ...inner, max];
}

const point = (deg: number, r: number): { x: number; y: number } => ({
  x: 70 + r * Math.sin((deg * Math.PI) / 180),
  y: 72 - r * Math.cos((deg * Math.PI) / 180),
});

/** A dial with the mark where it has to stand, or a switch up or down; in words beside it. */
@Component({
  selector: 'tac-dial-picture',
  template: `
    @if (dial(); as d) {
      <svg viewBox="0 0 140 140" role="img" [attr.aria-label]="words()">
        <circle class="body" cx="70" cy="72" r="38" />
        @for (m of d.marks; track m.text) {
          <line [attr.x1]="m.a.x" [attr.y1]="m.a.y" [attr.x2]="m.b.x" [attr.y2]="m.b.y" />
          <text [attr.x]="m.at.x" [attr.y]="m.at.y">{{ m.text }}</text>
        }
        <line class="hand" x1="70" y1="72" [attr.x2]="d.hand.x" [attr.y2]="d.hand.y" />
        <circle class="target" [attr.cx]="d.target.x" [attr.cy]="d.target.y" r="5" />
      </svg>
    } @else if (shape().kind === 'switch') {
      <svg viewBox="0 0 60 90" role="img" [attr.aria-label]="words()">
        <rect class="body" x="16" y="8" width="28" height="74" rx="4" />
        <rect class="thumb" x="20" [attr.y]="up() ? 12 : 46" width="20" height="32" rx="3" />
      </svg>
    }
    <p>{{ words() }}</p>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 14px;
    }
    svg {
      width: 150px;
      flex: none;
    }
    svg[viewBox^='0 0 60'] {
      width: 52px;
    }
    .body {
      fill: var(--paper);
      stroke: var(--line-strong);
      stroke-width: 2;
    }
    .thumb {
      fill: var(--ink);
    }
    line {
      stroke: var(--ink-soft);
      stroke-width: 1.5;
    }
    .hand {
      stroke: var(--ink);
      stroke-width: 4;
      stroke-linecap: round;
    }
    .target {
      fill: var(--accent-line);
    }
    text {
      font-size: 11px;
      text-anchor: middle;
      dominant-baseline: middle;
      fill: var(--ink);
    }
    p {
      margin: 0;
      font-weight: 600;
    }
  `,
})
export class DialPicture {
  readonly shape = input.required<Shape>();

  protected readonly up = computed(() => {
    const s = this.shape();
    return s.kind === 'switch' && s.on;
  });

  protected readonly dial = computed(() => {
    const s = this.shape();
    if (s.kind !== 'dial') return null;
    const deg = (value: number): number =>
      FROM_DEG + (TRAVEL_DEG * (value - s.min)) / (s.max - s.min || 1);
    const marks = marksOf(s.min, s.max).map((value) => {
      const at = deg(value);
      return {
        text: String(Number(value.toFixed(1))),
        a: point(at, 40),
        b: point(at, 46),
        at: point(at, 57),
      };
    });
    return { marks, hand: point(deg(s.at), 30), target: point(deg(s.at), 43) };
  });

  protected readonly words = computed(() => {
    const s = this.shape();
    if (s.kind === 'switch') return s.on ? 'Up.' : 'Down.';
    const share = (s.at - s.min) / (s.max - s.min || 1);
    const unit = s.unit ? ` ${s.unit}` : '';
    const where =
      share <= 0
        ? 'at its lowest mark'
        : share >= 1
          ? 'at its highest mark'
          : `${Math.round(share * 100)} % of its way clockwise from the lowest mark`;
    const note = share <= 0 && s.note ? ` ${s.note[0].toUpperCase()}${s.note.slice(1)}.` : '';
    return `The mark at ${s.at}${unit}: ${where}.${note}`;
  });
}
