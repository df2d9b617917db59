import { Component, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { OpenJob } from '../job-state/open-job';
import { Icon } from './icon';

/** Opens the trial that shows something in Rehearse, at its moment; nothing where there is none. */
@Component({
  selector: 'tac-show-me',
  imports: [Icon, RouterLink],
  template: `
    @if (at(); as proof) {
      <a
        class="act quiet"
        [attr.data-trial]="proof.script"
        [routerLink]="['/jobs', open.state().id, 'rehearse']"
        [queryParams]="{ trial: proof.script, at: proof.atUs }"
        ><tac-icon name="play" /> Show me</a
      >
    }
  `,
})
export class ShowMe {
  protected readonly open = inject(OpenJob);
  readonly at = input<{ readonly script: string; readonly atUs: number } | undefined>();
}
