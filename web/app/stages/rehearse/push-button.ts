import { Component, DestroyRef, inject, input, output, signal } from '@angular/core';

/**
 * A push button of the station: closed while it is held by pointer or key. It lets go by itself when the pointer is lost,
 * the focus leaves or the page is hidden; "hold" keeps it in, so that a second one can be pressed.
 */
@Component({
  selector: 'tac-push-button',
  template: `
    <button
      class="act push"
      type="button"
      [class.in]="pressed()"
      [attr.aria-pressed]="pressed()"
      (pointerdown)="pointer($event)"
      (pointerup)="up()"
      (pointercancel)="up()"
      (lostpointercapture)="up()"
      (keydown)="key($event, true)"
      (keyup)="key($event, false)"
      (blur)="up()"
    >
      {{ tag() }} {{ name() }}
    </button>
    <button
      class="act quiet"
      type="button"
      [attr.aria-pressed]="held()"
      [attr.aria-label]="'Hold ' + tag()"
      (click)="hold()"
    >
      {{ held() ? 'held' : 'hold' }}
    </button>
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
    }
    .push {
      flex: 1;
      min-height: 52px;
      touch-action: none;
    }
    .push.in {
      border-color: var(--copper);
      box-shadow: inset 0 3px 6px rgb(0 0 0 / 35%);
    }
  `,
})
export class PushButton {
  readonly tag = input.required<string>();
  readonly name = input('');
  readonly press = output<void>();
  readonly release = output<void>();
  protected readonly pressed = signal(false);
  protected readonly held = signal(false);

  constructor() {
    const hidden = (): void => {
      if (document.hidden) this.letGo();
    };
    const away = (event: Event): void => {
      if (event.target === window) this.letGo();
    };
    document.addEventListener('visibilitychange', hidden);
    window.addEventListener('blur', away);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', hidden);
      window.removeEventListener('blur', away);
    });
  }

  protected pointer(event: PointerEvent): void {
    event.preventDefault();
    const button = event.target as Element;
    // Keeps the button pressed while the finger slides off it; a pointer that is gone already cannot be captured.
    try {
      button.setPointerCapture(event.pointerId);
    } catch {
      // nothing to keep
    }
    this.down();
  }

  protected down(): void {
    if (this.pressed()) return;
    this.pressed.set(true);
    this.press.emit();
  }

  protected up(): void {
    if (this.pressed() && !this.held()) this.letGo();
  }

  protected key(event: KeyboardEvent, down: boolean): void {
    if (event.key !== ' ' && event.key !== 'Enter') return;
    event.preventDefault();
    if (down) this.down();
    else this.up();
  }

  protected hold(): void {
    this.held.update((h) => !h);
    if (this.held()) this.down();
    else this.letGo();
  }

  private letGo(): void {
    this.held.set(false);
    if (!this.pressed()) return;
    this.pressed.set(false);
    this.release.emit();
  }
}
