import { Component, computed, input, output } from '@angular/core';
import { knobAngle, type FaceLook } from './face-look';

/** Letters of all positions that fit in one line. */
const LINE = 9;

/** What stays where it is put: a selector that turns, a key, an emergency stop, a contact of the process. */
@Component({
  selector: 'tac-switch-face',
  template: `
    <div class="cell group" role="radiogroup" [class.beside]="beside()" [attr.aria-label]="tag()">
      <svg
        viewBox="0 0 60 60"
        aria-hidden="true"
        [class]="look().shape === 'mushroom' ? 'red' : look().colour"
        (pointerdown)="next($event)"
      >
        @switch (look().shape) {
          @case ('mushroom') {
            <rect class="plate" x="2" y="2" width="56" height="56" rx="8" />
            <circle class="cap" cx="30" cy="30" [attr.r]="at() > 0 ? 21 : 24" />
            <path class="turn" d="M19 23a13 13 0 0 1 22 0M41 37a13 13 0 0 1 -22 0" />
          }
          @case ('contact') {
            <path class="leads" d="M4 38H18M42 38H56" />
            <path class="lever" [attr.d]="closed() ? 'M18 38L42 38' : 'M18 38L39 22'" />
            <circle class="end" cx="18" cy="38" r="3" />
            <circle class="end" cx="42" cy="38" r="3" />
          }
          @default {
            <circle class="ring" cx="30" cy="30" r="27" />
            <circle class="cap" cx="30" cy="30" r="22" />
            <g [style.transform]="'rotate(' + angle() + 'deg)'">
              @if (look().shape === 'key') {
                <path class="mark" d="M30 14V32M24 32h12v10h-12z" />
              } @else {
                <rect class="handle" x="25" y="9" width="10" height="42" rx="5" />
                <path class="pointer" d="M30 11V24" />
              }
            </g>
          }
        }
      </svg>
      <span class="label"
        ><b>{{ tag() }}</b> {{ name() }}</span
      >
      <span class="row">
        @for (p of positions(); track p) {
          <button
            type="button"
            role="radio"
            [attr.aria-checked]="position() === p"
            [tabindex]="position() === p ? 0 : -1"
            (pointerdown)="$event.preventDefault(); turned.emit(p)"
            (keydown)="key($event, p)"
          >
            {{ p }}
          </button>
        }
      </span>
    </div>
  `,
  styleUrl: './face.scss',
})
export class SwitchFace {
  readonly tag = input.required<string>();
  readonly name = input('');
  readonly positions = input.required<readonly string[]>();
  readonly position = input.required<string>();
  readonly look = input.required<FaceLook>();
  readonly turned = output<string>();
  protected readonly at = computed(() => this.positions().indexOf(this.position()));
  protected readonly angle = computed(() => knobAngle(this.at(), this.positions().length));
  /** Long names do not fit side by side under the face. */
  protected readonly beside = computed(() => this.positions().join('').length > LINE);
  protected readonly closed = computed(() => /^(?:closed|shut)$/u.test(this.position()));

  /** A touch of the face turns it on to its next position, and from the last to the first. */
  protected next(event: PointerEvent): void {
    event.preventDefault();
    const all = this.positions();
    this.turned.emit(all[(this.at() + 1) % all.length]);
  }

  protected key(event: KeyboardEvent, position: string): void {
    const all = this.positions();
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (event.key === ' ' || event.key === 'Enter') this.turned.emit(position);
    else if (step) {
      this.turned.emit(all[(this.at() + step + all.length) % all.length]);
      const radios = (event.currentTarget as Element).parentElement?.querySelectorAll('button');
      radios?.[(this.at() + step + all.length) % all.length]?.focus();
    } else return;
    event.preventDefault();
  }
}
