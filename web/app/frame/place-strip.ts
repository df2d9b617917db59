import { Component, inject, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { Icon } from '../controls/icon';
import { Keys } from './keys';
import { ThemeButton } from './theme-button';

/** Head strip of the places outside a job. */
@Component({
  selector: 'tac-place-strip',
  imports: [RouterLink, RouterLinkActive, Icon, ThemeButton],
  template: `
    <header class="strip no-print">
      <img src="mark.svg" alt="" width="30" height="30" />
      <h1>{{ title() }}</h1>
      <nav aria-label="Places">
        @for (place of places; track place.path) {
          <a [routerLink]="place.path" routerLinkActive="here" ariaCurrentWhenActive="page">{{
            place.name
          }}</a>
        }
      </nav>
      <span class="gap"></span>
      <button class="strip-button keys" type="button" aria-label="Keys" (click)="keys.help()">
        <tac-icon name="keys" />
      </button>
      <tac-theme-button />
    </header>
  `,
  styleUrl: './place-strip.scss',
})
export class PlaceStrip {
  readonly title = input.required<string>();
  protected readonly keys = inject(Keys);
  protected readonly places = [
    { path: '/jobs', name: 'Jobs' },
    { path: '/sums', name: 'Sums' },
    { path: '/library', name: 'Library' },
    { path: '/settings', name: 'Settings' },
  ];
}
