import { Component, computed, inject } from '@angular/core';
import { OpenJob } from '../job-state/open-job';
import { ShowMe } from './show-me';

/** Rules that say that switching on destroys the device or makes a frame live. */
const destroys = /^damage\.|^pe\.onPhase$/u;

/** Says before everything else that this wiring must not be switched on; nothing where it may be. */
@Component({
  selector: 'tac-destroys-notice',
  imports: [ShowMe],
  template: `
    @for (f of findings(); track f.finding.key) {
      <section class="notice" role="alert" [attr.data-finding]="f.finding.key">
        <p>
          <b>Do not switch on. {{ f.what }}</b> {{ f.why }} What is simulated from here on is not
          what the panel would do.
        </p>
        <tac-show-me [at]="f.finding.proof" />
      </section>
    }
  `,
  styles: `
    .notice {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
      margin: 0 0 12px;
      padding: 10px 14px;
      border-left: 8px solid var(--bad);
      background: var(--sheet);
    }
    p {
      flex: 1 1 320px;
      margin: 0;
    }
  `,
})
export class DestroysNotice {
  private readonly open = inject(OpenJob);
  protected readonly findings = computed(() =>
    (this.open.derived()?.findings ?? []).filter((f) => destroys.test(f.finding.rule)),
  );
}
