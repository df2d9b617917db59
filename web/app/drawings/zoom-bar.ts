import { Component, input } from '@angular/core';
import { Icon } from '../controls/icon';
import type { Zoom } from './zoom';

/** Larger, smaller, as wide as the room. */
@Component({
  selector: 'tac-zoom-bar',
  imports: [Icon],
  template: `
    <button
      class="act"
      type="button"
      aria-label="Smaller"
      title="Smaller"
      (click)="zoom().smaller()"
    >
      <tac-icon name="smaller" />
    </button>
    <button class="act" type="button" title="As wide as the room" (click)="zoom().fitted()">
      {{ zoom().text() }}
    </button>
    <button class="act" type="button" aria-label="Larger" title="Larger" (click)="zoom().larger()">
      <tac-icon name="larger" />
    </button>
  `,
  styles: `
    :host {
      display: flex;
      gap: 3px;
    }
    .act {
      min-height: 32px;
      min-width: 36px;
      padding: 0 8px;
      font-size: 13px;
    }
    @media (pointer: coarse) {
      .act {
        min-height: 44px;
        min-width: 44px;
      }
    }
  `,
})
export class ZoomBar {
  readonly zoom = input.required<Zoom>();
}
