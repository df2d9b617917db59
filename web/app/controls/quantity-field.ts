import { Component, computed, effect, inject, input, output, signal } from '@angular/core';
import {
  formatQuantity,
  parseQuantity,
  toBase,
  unitIn,
  type Dimension,
  type Quantity,
} from '@tactron/core/units';
import { Preferences } from '../frame/preferences';
import { Entered } from './entered';

let count = 0;

const nameOf = (q: Quantity | undefined): string => (q ? `${q.v} ${q.u}` : '');

/** A field for a quantity: any unit of its dimension, comma or point; an ambiguous number is asked about. */
@Component({
  selector: 'tac-quantity',
  template: `
    <label class="named" [class.visually-hidden]="quiet()" [attr.for]="id">{{ label() }}</label>
    <input
      class="field mono"
      [id]="id"
      autocomplete="off"
      inputmode="text"
      [value]="text()"
      [attr.aria-invalid]="problem() || flagged() ? true : null"
      [attr.aria-describedby]="problem() ? id + '-problem' : null"
      [placeholder]="placeholder()"
      (input)="typing($any($event.target).value)"
      (change)="accept()"
      (keydown.enter)="accept()"
    />
    @if (problem(); as p) {
      <div class="problem" [id]="id + '-problem'" role="alert">
        {{ p }}
        @for (reading of readings(); track reading) {
          <button class="act" type="button" (click)="choose(reading)">{{ show(reading) }}</button>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 3px;
      min-width: 0;
    }
    .problem {
      color: var(--bad);
      font-size: 13px;
    }
    .problem button {
      margin: 4px 6px 0 0;
    }
  `,
})
export class QuantityField {
  readonly label = input.required<string>();
  readonly dimension = input.required<Dimension>();
  readonly value = input<Quantity | undefined>();
  readonly unit = input<string>();
  readonly min = input(0);
  /** Largest that is taken. */
  readonly most = input<Quantity | undefined>();
  /** The label is read out only: the column's head and the row name the field already. */
  readonly quiet = input(false);
  readonly flagged = input(false);
  /** A plain number: shown without a unit. */
  readonly bare = input(false);
  readonly positive = input(false);
  readonly changed = output<Quantity | undefined>();

  protected readonly id = `quantity-${++count}`;
  private readonly preferences = inject(Preferences);
  private typed = false;
  private readonly entered = new Entered();
  protected readonly text = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly readings = signal<readonly number[]>([]);
  /** Unit of a number typed without one. */
  private readonly bareUnit = computed(
    () => unitIn(this.unit() ?? '', this.preferences.units()) || undefined,
  );
  protected readonly placeholder = computed(() => (this.bare() ? '' : (this.bareUnit() ?? '')));

  constructor() {
    effect(() => {
      const q = this.value();
      // What others write, or an answer that comes late, never replaces what is being typed.
      if (!this.entered.came(nameOf(q)) || this.typed) return;
      this.text.set(q ? formatQuantity(q, this.preferences.decimal()) : '');
      this.problem.set(null);
      this.readings.set([]);
    });
  }

  protected typing(text: string): void {
    this.typed = true;
    this.text.set(text);
    this.problem.set(null);
  }

  protected accept(): void {
    // Enter is followed by the field's own change: what was given then is not given twice.
    const again = this.typed;
    this.typed = false;
    const parsed = parseQuantity(this.text(), this.dimension(), this.value()?.u ?? this.bareUnit());
    this.readings.set([]);
    if (parsed.ok) {
      if (this.positive() && parsed.quantity.v <= 0) return this.problem.set('A number above 0.');
      if (parsed.quantity.v < this.min()) return this.problem.set(`At least ${this.min()}.`);
      const most = this.most();
      const base = (q: Quantity): number => toBase(q, this.dimension());
      if (most && base(parsed.quantity) > base(most))
        return this.problem.set(`At most ${formatQuantity(most, this.preferences.decimal())}.`);
      this.problem.set(null);
      this.give(parsed.quantity, again);
      return;
    }
    if (parsed.why === 'empty') {
      this.give(undefined, again);
      return;
    }
    if (parsed.why === 'ambiguous') {
      this.readings.set(parsed.readings);
      return this.problem.set('Which one is meant?');
    }
    const units = parsed.why === 'unknownUnit' ? (parsed.units ?? []).filter(Boolean) : undefined;
    if (!units) return this.problem.set('This is no number.');
    this.problem.set(units.length ? `Unknown unit. Use ${units.join(', ')}.` : 'Without a unit.');
  }

  protected choose(v: number): void {
    this.readings.set([]);
    this.problem.set(null);
    this.give({ v, u: this.value()?.u ?? this.bareUnit() ?? '' }, true);
  }

  /**
   * Gives a value on, unless it stands there or was just given.
   *
   * @param again it was typed since: what was given before may have come to nothing
   */
  private give(quantity: Quantity | undefined, again: boolean): void {
    const name = nameOf(quantity);
    const { last } = this.entered;
    if (last === undefined ? name === nameOf(this.value()) : name === last && !again) return;
    this.entered.gave(name);
    this.changed.emit(quantity);
  }

  protected show(v: number): string {
    return formatQuantity({ v, u: this.bareUnit() ?? '' }, this.preferences.decimal());
  }
}
