import {
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { FaceLook } from './face-look';

/**
 * A push button of the station: closed while it is held by pointer or key. It lets go by itself when the pointer is lost,
 * the focus leaves or the page is hidden; where presses latch it stays in until it is pressed once more, so that a second
 * one can be pressed.
 */
@Component({
  selector: 'tac-push-button',
  template: `
    <button
      class="cell"
      type="button"
      [class.in]="pressed()"
      [attr.aria-pressed]="pressed()"
      (pointerdown)="pointer($event)"
      (pointerup)="up()"
      (pointercancel)="up()"
      (lostpointercapture)="up()"
      (keydown)="key($event, true)"
      (keyup)="key($event, false)"
      (blur)="away()"
    >
      <svg viewBox="0 0 60 60" aria-hidden="true" [class]="look().colour">
        <circle class="ring" cx="30" cy="30" r="27" />
        <circle class="cap" cx="30" cy="30" [attr.r]="pressed() ? 20 : 22" />
        @switch (look().mark) {
          @case ('bar') {
            <path class="mark" d="M30 20V40" />
          }
          @case ('ring') {
            <circle class="mark" cx="30" cy="30" r="9" />
          }
          @case ('foot') {
            <path class="mark" d="M30 19V35M21 41H39" />
          }
        }
      </svg>
      <span class="label"
        ><b>{{ tag() }}</b> {{ name() }}</span
      >
      <span class="state" aria-hidden="true">{{
        pressed() ? (latched() ? 'kept in' : 'in') : ''
      }}</span>
    </button>
  `,
  styleUrl: './face.scss',
})
export class PushButton {
  readonly tag = input.required<string>();
  readonly name = input('');
  readonly look = input<FaceLook>({ colour: 'black', mark: '', shape: 'push' });
  /** A press stays in until the next one. */
  readonly latches = input(false);
  readonly press = output<void>();
  readonly release = output<void>();
  protected readonly pressed = signal(false);
  protected readonly latched = computed(() => this.latches() && this.pressed());

  constructor() {
    const hidden = (): void => {
      if (document.hidden) this.letGo();
    };
    const left = (event: Event): void => {
      if (event.target === window) this.letGo();
    };
    document.addEventListener('visibilitychange', hidden);
    window.addEventListener('blur', left);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', hidden);
      window.removeEventListener('blur', left);
    });
    effect(() => {
      if (!this.latches()) untracked(() => this.letGo());
    });
  }

  protected pointer(event: PointerEvent): void {
    event.preventDefault();
    const button = event.currentTarget as Element;
    if (this.latches() && this.pressed()) return this.letGo();
    // Keeps the button pressed while the finger slides off it; a pointer that is gone already cannot be captured.
    try {
      button.setPointerCapture(event.pointerId);
    } catch {
      // nothing to keep
    }
    this.down();
  }

  protected up(): void {
    if (!this.latches()) this.letGo();
  }

  protected away(): void {
    if (!this.latches()) this.letGo();
  }

  protected key(event: KeyboardEvent, down: boolean): void {
    if (event.key !== ' ' && event.key !== 'Enter') return;
    event.preventDefault();
    if (!down) this.up();
    else if (this.latches() && this.pressed() && !event.repeat) this.letGo();
    else this.down();
  }

  private down(): void {
    if (this.pressed()) return;
    this.pressed.set(true);
    this.press.emit();
  }

  private letGo(): void {
    if (!this.pressed()) return;
    this.pressed.set(false);
    this.release.emit();
  }
}
