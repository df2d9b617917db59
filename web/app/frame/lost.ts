import { Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'tac-lost',
  imports: [RouterLink],
  template: `
    <main>
      <h1>{{ title() }}</h1>
      <p class="soft">{{ detail() }}</p>
      <a class="act main" routerLink="/jobs">Back to all jobs</a>
    </main>
  `,
  styles:
    'main { display: grid; gap: 16px; justify-items: start; padding: 48px 24px; max-width: 640px; margin: auto; }',
})
export class Lost {
  readonly title = input('There is nothing at this address.');
  readonly detail = input('The link may be old, or the job may be on another server.');
}
