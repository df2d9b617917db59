import { Injectable, inject } from '@angular/core';
import { emptySite, type Author, type SiteDocument } from '@tactron/core/job';
import { Api, ApiError } from '../job-state/api';
import { LocalStore } from '../job-state/local-store';

/** What a site settles, as the server has it, or as it was last read where the server does not answer. */
export interface KnownSite {
  readonly document: SiteDocument;
  readonly revision: number;
  readonly fresh: boolean;
}

/** How often a change is made anew on what somebody else has just settled. */
const TRIES = 3;

const listOf = (siteId: string): string => `site.${siteId}`;

/** What sites settle for their jobs: who signs, which instruments there are. Changed on the server only. */
@Injectable({ providedIn: 'root' })
export class SiteDocuments {
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);

  /** Nothing settled where neither the server nor this browser knows the site. */
  async of(siteId: string): Promise<KnownSite> {
    try {
      const known = await this.api.siteDocument(siteId);
      await this.local.keepList(listOf(siteId), [known]);
      return { ...known, fresh: true };
    } catch {
      const kept = (await this.local.list<Omit<KnownSite, 'fresh'>>(listOf(siteId)))?.at(0);
      return { ...(kept ?? { document: emptySite(), revision: 0 }), fresh: false };
    }
  }

  /**
   * Changes what a site settles. Where it was changed elsewhere meanwhile, the recipe is applied to that.
   *
   * @throws ApiError in the server's words; `status` 0 where it does not answer
   */
  async change(
    siteId: string,
    author: Author,
    recipe: (document: SiteDocument) => SiteDocument,
  ): Promise<KnownSite> {
    for (let left = TRIES; ; left--) {
      const { document, revision } = await this.api.siteDocument(siteId);
      const next = recipe(document);
      try {
        const done = await this.api.putSiteDocument(siteId, revision, next, author);
        const known = { document: next, revision: done.revision };
        await this.local.keepList(listOf(siteId), [known]);
        return { ...known, fresh: true };
      } catch (error) {
        if (!(error instanceof ApiError) || error.status !== 412 || left <= 1) throw error;
      }
    }
  }
}
