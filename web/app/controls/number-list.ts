import { Component, input, output } from '@angular/core';
import { Icon } from './icon';
import { NumberField } from './number-field';

/** A few numbers in their order, added and removed at the end. */
@Component({
  selector: 'tac-number-list',
  imports: [NumberField, Icon],
  template: `
    @for (value of values(); track $index) {
      <tac-number
        [label]="label() + ' ' + ($index + 1) + unit()"
        [value]="value"
        (changed)="set($index, $event)"
      />
    }
    <div class="ends">
      @if (values().length < most()) {
        <button class="act" type="button" (click)="changed.emit([...values(), next()])">
          <tac-icon name="add" /> {{ label() }}
        </button>
      }
      @if (values().length) {
        <button class="act quiet" type="button" (click)="drop()">Remove the last</button>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
      gap: 8px;
      align-items: end;
    }
    .ends {
      display: flex;
      gap: 6px;
      grid-column: 1 / -1;
    }
  `,
})
export class NumberList {
  readonly label = input.required<string>();
  readonly unit = input('');
  readonly values = input<readonly number[]>([]);
  readonly most = input(7);
  readonly changed = output<number[] | undefined>();

  /** What a further number starts at: a step beyond the last. */
  protected next(): number {
    return (this.values().at(-1) ?? 0) + 10;
  }

  protected set(at: number, value: number | undefined): void {
    if (value !== undefined) this.changed.emit(this.values().map((v, i) => (i === at ? value : v)));
  }

  protected drop(): void {
    const left = this.values().slice(0, -1);
    this.changed.emit(left.length ? left : undefined);
  }
}
