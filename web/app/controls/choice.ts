import { Component, input, output } from '@angular/core';

export interface Option {
  readonly value: string;
  readonly name: string;
  readonly hint?: string;
}

let count = 0;

/** A few answers side by side; one of them, or none yet. */
@Component({
  selector: 'tac-choice',
  template: `
    <div class="ask" [class.visually-hidden]="dense()" [id]="id">{{ label() }}</div>
    <div class="row" role="radiogroup" [class.dense]="dense()" [attr.aria-labelledby]="id">
      @for (option of options(); track option.value) {
        <button
          class="act"
          type="button"
          role="radio"
          [attr.aria-checked]="option.value === value()"
          [title]="option.hint ?? ''"
          (click)="changed.emit(option.value)"
        >
          {{ option.name }}
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
    .dense {
      gap: 3px;
    }
    .dense .act {
      min-height: 32px;
      padding: 0 10px;
      font-size: 14px;
    }
    @media (pointer: coarse) {
      .dense .act {
        min-height: 44px;
      }
    }
  `,
})
export class Choice {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Option[]>();
  readonly value = input<string | undefined>();
  /** In a row of tools: low, its label for screen readers only. */
  readonly dense = input(false);
  readonly changed = output<string>();
  protected readonly id = `choice-${++count}`;
}
