import { Component, computed, input, output } from '@angular/core';

/** Degrees that a dial turns from its lower end to its upper one. */
const TRAVEL = 270;

/** A dial or the signal of a controller: turned by the slider, or set to a place. */
@Component({
  selector: 'tac-dial-face',
  template: `
    <div class="cell dial">
      <svg viewBox="0 0 60 60" aria-hidden="true" class="black">
        @for (tick of ticks; track tick) {
          <path class="tick" d="M30 1V6" [style.transform]="'rotate(' + tick + 'deg)'" />
        }
        <circle class="cap" cx="30" cy="30" r="20" />
        <path class="pointer" d="M30 12V24" [style.transform]="'rotate(' + angle() + 'deg)'" />
      </svg>
      <div class="sets">
        <label class="label" [title]="name()"
          ><span
            ><b>{{ tag() }}</b
            >&nbsp;<span class="mono">{{ text() }} %</span></span
          >
          <input
            type="range"
            min="0"
            max="100"
            step="1"
            [value]="pct()"
            (input)="set.emit(+$any($event.target).value)"
        /></label>
        <div class="row">
          @for (p of places; track p) {
            <button
              type="button"
              [attr.aria-label]="p"
              [attr.title]="p + ' %'"
              (click)="set.emit(p)"
            >
              {{ p }}
            </button>
          }
        </div>
      </div>
    </div>
  `,
  styleUrl: './face.scss',
})
export class DialFace {
  readonly tag = input.required<string>();
  readonly name = input('');
  readonly pct = input.required<number>();
  readonly text = input.required<string>();
  readonly set = output<number>();
  protected readonly places = [0, 25, 50, 75, 100] as const;
  protected readonly ticks = [-135, -67.5, 0, 67.5, 135] as const;
  protected readonly angle = computed(() => (this.pct() / 100 - 0.5) * TRAVEL);
}
