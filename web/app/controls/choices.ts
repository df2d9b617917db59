import { Component, input, output } from '@angular/core';
import type { Option } from './choice';

let count = 0;

/** Several answers side by side, each wanted or not. */
@Component({
  selector: 'tac-choices',
  template: `
    <div class="ask" [id]="id">{{ label() }}</div>
    <div class="row" role="group" [attr.aria-labelledby]="id">
      @for (option of options(); track option.value) {
        <button
          class="act"
          type="button"
          role="checkbox"
          [attr.aria-checked]="has(option.value)"
          (click)="toggle(option.value)"
        >
          {{ has(option.value) ? '✓ ' : '' }}{{ option.name }}
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 5px;
    }
    .ask {
      font-size: 13px;
      color: var(--ink-soft);
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class Choices {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Option[]>();
  readonly values = input<readonly string[] | undefined>();
  /** The answers wanted, in the order of the options; undefined where none is. */
  readonly changed = output<string[] | undefined>();
  protected readonly id = `choices-${++count}`;

  protected has(value: string): boolean {
    return this.values()?.includes(value) === true;
  }

  protected toggle(value: string): void {
    const wanted = this.options()
      .map((o) => o.value)
      .filter((v) => (v === value ? !this.has(v) : this.has(v)));
    this.changed.emit(wanted.length ? wanted : undefined);
  }
}
