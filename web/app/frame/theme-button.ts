import { Component, inject } from '@angular/core';
import { Icon } from '../controls/icon';
import { Preferences } from './preferences';

/** Switches between the two themes. */
@Component({
  selector: 'tac-theme-button',
  imports: [Icon],
  template: `
    <button
      class="strip-button"
      type="button"
      [attr.aria-label]="preferences.theme() === 'day' ? 'Plant room theme' : 'Day theme'"
      (click)="preferences.theme.set(preferences.theme() === 'day' ? 'plant' : 'day')"
    >
      <tac-icon [name]="preferences.theme() === 'day' ? 'night' : 'day'" />
    </button>
  `,
  styles: `
    button {
      display: inline-flex;
      min-width: 44px;
      min-height: 44px;
      align-items: center;
      justify-content: center;
      border: 0;
      background: transparent;
      color: inherit;
      cursor: pointer;
    }
  `,
})
export class ThemeButton {
  protected readonly preferences = inject(Preferences);
}
