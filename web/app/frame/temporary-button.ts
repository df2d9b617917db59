import { Component, computed, inject, input } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { temporaryRegister } from '@tactron/core/job';
import { Icon } from '../controls/icon';
import { OpenJob } from '../job-state/open-job';

/** How many things are in for tests, and the list of them; in the head strip only while anything is. */
@Component({
  selector: 'tac-temporary-button',
  imports: [Icon],
  template: `
    @if (inside() || !inStrip()) {
      <button
        type="button"
        [class]="look()"
        [attr.aria-label]="inStrip() ? inside() + ' in for tests' : null"
        (click)="show()"
      >
        @if (inStrip()) {
          <tac-icon name="warn" /> <b>{{ inside() }}</b> <span class="wide">in for tests</span>
        } @else {
          Put something in for a test …
        }
      </button>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .strip-button {
      display: flex;
      gap: 6px;
      align-items: center;
      min-height: 40px;
      padding: 0 10px;
      font: inherit;
      color: var(--strip-ink, inherit);
      background: none;
      border: 2px solid currentColor;
      border-radius: 6px;
      cursor: pointer;
    }
    @media (pointer: coarse) {
      .strip-button {
        min-height: 44px;
      }
    }
    @media (width < 700px) {
      .strip-button .wide {
        display: none;
      }
    }
  `,
})
export class TemporaryButton {
  readonly inStrip = input(false);
  private readonly open = inject(OpenJob);
  private readonly dialog = inject(MatDialog);
  protected readonly inside = computed(
    () => temporaryRegister(this.open.evidence()).filter((t) => !t.removed).length,
  );
  protected readonly look = computed(() => (this.inStrip() ? 'strip-button' : 'act quiet'));

  protected async show(): Promise<void> {
    const { TemporaryDialog } = await import('./temporary-dialog');
    this.dialog.open(TemporaryDialog);
  }
}
