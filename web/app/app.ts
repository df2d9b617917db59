import { Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Keys } from './frame/keys';
import { KeepingNotices } from './frame/keeping-notices';
import { Preferences } from './frame/preferences';
import { Keeping } from './job-state/keeping';

@Component({
  selector: 'tac-root',
  imports: [RouterOutlet, KeepingNotices],
  template: '<tac-keeping-notices /><router-outlet />',
})
export class App {
  constructor() {
    inject(Preferences);
    inject(Keys).listen();
    void inject(Keeping).begin();
  }
}
