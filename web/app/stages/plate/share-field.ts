import { Component, effect, inject, input, output, signal } from '@angular/core';
import { formatNumber, parseQuantity } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';

let count = 0;

/** A plain number: efficiency, power factor, ratio, per cent. */
@Component({
  selector: 'tac-share',
  template: `
    <label class="named" [attr.for]="id">{{ label() }}</label>
    <input
      class="field mono"
      [id]="id"
      autocomplete="off"
      [value]="text()"
      [attr.aria-invalid]="problem() || flagged() ? true : null"
      (input)="text.set($any($event.target).value)"
      (change)="accept()"
      (keydown.enter)="accept()"
    />
    @if (problem(); as p) {
      <div class="problem" role="alert">{{ p }}</div>
    }
  `,
  styles: ':host { display: grid; gap: 3px; min-width: 0; } .problem { color: var(--bad); font-size: 13px; }',
})
export class ShareField {
  readonly label = input.required<string>();
  readonly value = input<number | undefined>();
  readonly flagged = input(false);
  readonly changed = output<number | undefined>();
  protected readonly id = `share-${++count}`;
  protected readonly text = signal('');
  protected readonly problem = signal<string | null>(null);
  private readonly preferences = inject(Preferences);

  constructor() {
    effect(() => {
      const v = this.value();
      this.text.set(v === undefined ? '' : formatNumber(v, 6, this.preferences.decimal()));
      this.problem.set(null);
    });
  }

  protected accept(): void {
    const parsed = parseQuantity(this.text().replace('%', ''), 'number');
    if (parsed.ok && parsed.quantity.v > 0) {
      this.problem.set(null);
      if (parsed.quantity.v !== this.value()) this.changed.emit(parsed.quantity.v);
    } else if (!parsed.ok && parsed.why === 'empty') {
      if (this.value() !== undefined) this.changed.emit(undefined);
    } else if (!parsed.ok && parsed.why === 'ambiguous') this.problem.set(`Write ${parsed.readings[1]} or ${parsed.readings[0].toFixed(4)}.`);
    else this.problem.set('A number above 0.');
  }
}
