import { Component, computed, effect, inject, signal } from '@angular/core';
import { sameTolerances, type OwnTolerances } from '@tactron/core/job';
import { tolerancesApart } from '@tactron/core/printed';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { SiteDocuments } from '../../site/site-documents';

/** Says where the site settles other tolerances than the job was given, and takes them over. */
@Component({
  selector: 'tac-site-tolerances',
  template: `
    @if (apart().length) {
      <p class="caution part-only" role="status">
        <b>The site settles other tolerances than this job has:</b>
        @for (t of apart(); track t.name) {
          {{ t.what }} {{ t.one }}, here {{ t.other }}{{ $last ? '.' : ';' }}
        }
        Readings that were judged by others are taken again.
        <button class="act quiet" type="button" (click)="take()">Take over the site’s</button>
      </p>
    }
  `,
})
export class SiteTolerances {
  private readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  private readonly site = signal<OwnTolerances | undefined>(undefined);
  protected readonly apart = computed(() => {
    const [site, job] = [this.site(), this.open.job()];
    if (!site || !job || this.open.signing().closed) return [];
    return tolerancesApart(site, job.tolerances, this.preferences.decimal());
  });

  constructor() {
    const sites = inject(SiteDocuments);
    // Asked once a site, not with every change of the job.
    const at = computed(() => this.open.job()?.siteId);
    effect(() => {
      const siteId = at();
      if (siteId)
        void sites.of(siteId).then(({ document, revision }) =>
          // A site that nobody knows here settles nothing.
          this.site.set(revision > 0 ? document.tolerances : undefined),
        );
    });
  }

  protected take(): void {
    const site = this.site();
    if (!site) return;
    this.open.edit('tolerances of the site', (draft) => {
      if (sameTolerances(site, undefined)) delete draft.tolerances;
      else draft.tolerances = { ...site };
    });
  }
}
