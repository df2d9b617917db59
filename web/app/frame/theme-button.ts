import { Component, inject } from '@angular/core';
import { Icon } from '../controls/icon';
import { Preferences } from './preferences';

/** Switches between the two themes. */
@Component({
  selector: 'tac-theme-button',
  imports: [Icon],
  template: `
    <button
      type="button"
      [attr.aria-label]="preferences.theme() === 'day' ? 'Plant room theme' : 'Day theme'"
      (click)="preferences.theme.set(preferences.theme() === 'day' ? 'plant' : 'day')"
    >
      <tac-icon [name]="preferences.theme() === 'day' ? 'night' : 'day'" />
    </button>
  `,
  styleUrl: './theme-button.scss',
})
export class ThemeButton {
  protected readonly preferences = inject(Preferences);
}
