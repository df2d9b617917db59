import { Component, input } from '@angular/core';

/** A tick of the hand list: what it says while it is to do, and a mark once it is done. */
@Component({
  selector: 'tac-tick',
  template: `
    <button
      class="act"
      type="button"
      [attr.aria-pressed]="done()"
      [attr.aria-label]="name()"
      [title]="by()"
    >
      @if (done()) {
        ✓
      }
      {{ done() ? more() : todo() || more() }}
    </button>
  `,
  styles: `
    button {
      min-width: 56px;
      min-height: 36px;
      font-size: 16px;
    }
    @media (pointer: coarse) {
      button {
        min-width: 64px;
        min-height: 56px;
      }
    }
  `,
})
export class Tick {
  readonly name = input.required<string>();
  readonly done = input.required<boolean>();
  /** Who did it, and when. */
  readonly by = input('');
  /** What stands on it while it is to do. */
  readonly todo = input('');
  /** What stands on it in any case: a torque. */
  readonly more = input('');
}
