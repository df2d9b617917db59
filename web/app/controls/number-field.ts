import { Component, computed, input, output } from '@angular/core';
import type { Quantity } from '@tactron/core/units';
import { QuantityField } from './quantity-field';

/** A plain number above zero: efficiency, power factor, ratio, per cent, seconds. */
@Component({
  selector: 'tac-number',
  imports: [QuantityField],
  template: `<tac-quantity
    [label]="label()"
    [dimension]="percent() ? 'ratio' : 'number'"
    [bare]="true"
    [positive]="true"
    [value]="quantity()"
    [flagged]="flagged()"
    (changed)="changed.emit($event?.v ?? undefined)"
  />`,
  styles: ':host { display: block; min-width: 0; }',
})
export class NumberField {
  readonly label = input.required<string>();
  readonly value = input<number | undefined>();
  readonly percent = input(false);
  readonly flagged = input(false);
  readonly changed = output<number | undefined>();
  protected readonly quantity = computed((): Quantity | undefined => {
    const v = this.value();
    return v === undefined ? undefined : { v, u: '' };
  });
}
