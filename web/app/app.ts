import { Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Keys } from './frame/keys';
import { Preferences } from './frame/preferences';

@Component({ selector: 'tac-root', imports: [RouterOutlet], template: '<router-outlet />' })
export class App {
  constructor() {
    inject(Preferences);
    inject(Keys).listen();
  }
}
