import { Component, computed, input, output } from '@angular/core';
import {
  mostTolerance,
  toleranceNames,
  toleranceUnit,
  usualTolerances,
  type OwnTolerances,
  type ToleranceName,
  type ToleranceUnit,
} from '@tactron/core/job';
import { toleranceText, toleranceWords } from '@tactron/core/printed';
import { toBase, type Dimension, type Quantity } from '@tactron/core/units';
import { QuantityField } from '../controls/quantity-field';

/** By how much readings may differ at a site: the usual, and what it settles otherwise. */
@Component({
  selector: 'tac-tolerance-table',
  imports: [QuantityField],
  template: `
    <div class="scroll-x">
      <table class="plain">
        <thead>
          <tr>
            <th>reading</th>
            <th>usual</th>
            <th>this site’s</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (t of rows(); track t.name) {
            <tr [attr.data-tolerance]="t.name">
              <td>{{ t.what }}</td>
              <td class="mono">{{ t.usual }}</td>
              <td>
                <tac-quantity
                  [label]="t.what"
                  [quiet]="true"
                  [dimension]="t.dimension"
                  [unit]="t.unit"
                  [positive]="true"
                  [most]="t.most"
                  [value]="t.own"
                  (changed)="settle(t.name, $event)"
                />
              </td>
              <td>
                @if (t.own !== undefined) {
                  <button class="act quiet" type="button" (click)="settle(t.name, undefined)">
                    The usual again
                  </button>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styles: `
    tac-quantity {
      width: 150px;
    }
    td {
      vertical-align: middle;
    }
  `,
})
export class ToleranceTable {
  readonly own = input.required<OwnTolerances>();
  /** The site's tolerances as they are to be. */
  readonly settled = output<OwnTolerances>();
  protected readonly rows = computed(() =>
    toleranceNames.map((name) => {
      const [dimension, unit] = given[toleranceUnit(name)];
      const own = this.own()[name];
      return {
        name,
        what: toleranceWords[name],
        usual: toleranceText(name, usualTolerances[name]),
        dimension,
        unit,
        own: own === undefined ? undefined : shown(name, own),
        most: shown(name, mostTolerance[toleranceUnit(name)]),
      };
    }),
  );

  protected settle(name: ToleranceName, typed: Quantity | undefined): void {
    const { [name]: _before, ...others } = this.own();
    const value = typed && held(name, typed);
    const same = value === undefined || value === usualTolerances[name];
    this.settled.emit(same ? others : { ...others, [name]: value });
  }
}

/** What a tolerance is typed in. */
const given: Readonly<Record<ToleranceUnit, readonly [Dimension, string]>> = {
  share: ['ratio', '%'],
  '%': ['ratio', '%'],
  Hz: ['frequency', 'Hz'],
  s: ['time', 's'],
  Ω: ['resistance', 'Ω'],
};

/** Rounded, so that a share of 0.07 is 7 % and not 7.000000000000001. */
const round = (x: number): number => Math.round(x * 1e6) / 1e6;

const shown = (name: ToleranceName, value: number): Quantity => {
  const unit = toleranceUnit(name);
  return { v: unit === 'share' ? round(value * 100) : value, u: given[unit][1] };
};
const held = (name: ToleranceName, typed: Quantity): number => {
  const unit = toleranceUnit(name);
  const base = toBase(typed, given[unit][0]);
  return round(unit === 'share' ? base / 100 : base);
};
