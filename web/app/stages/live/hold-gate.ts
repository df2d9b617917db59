import { Component, input, output, signal } from '@angular/core';

/** A hold point that is not passed yet: the way to it, or passing it over by name and with a reason. */
@Component({
  selector: 'tac-hold-gate',
  template: `
    <p>
      <b>{{ text() }}</b>
    </p>
    <button class="act main" type="button" (click)="toIt.emit()">Go there</button>
    @if (!mayPass()) {
      <p class="small soft">What proves the panel dead is passed over by nobody.</p>
    } @else if (asked()) {
      <form (submit)="pass($event)">
        <label class="named"
          >Why it is passed over
          <input
            class="field"
            name="reason"
            maxlength="1000"
            autocomplete="off"
            [value]="reason()"
            (input)="reason.set($any($event.target).value)"
        /></label>
        <button class="act" type="submit" [disabled]="!reason().trim()">
          Pass it over, by my name
        </button>
      </form>
    } @else {
      <button class="act quiet" type="button" (click)="asked.set(true)">Pass it over …</button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      align-content: start;
      padding: 10px 14px;
      border-left: 5px solid var(--warn);
    }
    p {
      margin: 0;
    }
    form {
      display: grid;
      gap: 8px;
    }
    .main,
    form .act {
      min-height: 60px;
    }
  `,
})
export class HoldGate {
  readonly text = input.required<string>();
  /** A person may pass it over. */
  readonly mayPass = input(true);
  readonly toIt = output();
  /** The reason for which it is passed over. */
  readonly passed = output<string>();
  protected readonly asked = signal(false);
  protected readonly reason = signal('');

  protected pass(event: Event): void {
    event.preventDefault();
    const reason = this.reason().trim();
    if (!reason) return;
    this.passed.emit(reason);
    this.asked.set(false);
    this.reason.set('');
  }
}
