import { Component, computed, inject, input } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../frame/preferences';

interface Row {
  readonly dial: number;
  readonly hz: number;
  readonly rpm: number;
}

/** Angle over which a dial turns, degrees. */
const TURN = 270;

/** The face of a dial with the speed at every mark, to be printed and cut out. */
@Component({
  selector: 'tac-dial-label',
  template: `
    <svg viewBox="-100 -100 200 190" role="img" [attr.aria-label]="label()">
      <circle r="62" class="ring" />
      <circle r="12" class="hole" />
      @for (m of marks(); track m.dial) {
        <line [attr.x1]="m.x1" [attr.y1]="m.y1" [attr.x2]="m.x2" [attr.y2]="m.y2" />
        <text [attr.x]="m.tx" [attr.y]="m.ty">{{ m.text }}</text>
      }
      <text y="44" class="unit">Hz</text>
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 70mm;
      max-width: 100%;
      margin: 0 auto;
    }
    .ring,
    .hole,
    line {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    text {
      fill: var(--ink);
      font-size: 9px;
      text-anchor: middle;
      dominant-baseline: middle;
      font-weight: 600;
    }
    .unit {
      font-size: 10px;
    }
  `,
})
export class DialLabel {
  readonly rows = input.required<readonly Row[]>();
  private readonly preferences = inject(Preferences);
  protected readonly marks = computed(() =>
    this.rows().map((row) => {
      const angle = ((row.dial * TURN - TURN / 2 - 90) * Math.PI) / 180;
      const at = (r: number): [number, number] => [r * Math.cos(angle), r * Math.sin(angle)];
      const [[x1, y1], [x2, y2], [tx, ty]] = [at(62), at(72), at(85)];
      return {
        dial: row.dial,
        x1,
        y1,
        x2,
        y2,
        tx,
        ty,
        text: formatNumber(row.hz, 1, this.preferences.decimal()),
      };
    }),
  );
  protected readonly label = computed(() =>
    this.marks()
      .map((m) => `${Math.round(m.dial * 100)} %: ${m.text} Hz`)
      .join(', '),
  );
}
