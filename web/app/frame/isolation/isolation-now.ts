import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { isolationNow, standingIsolations, type EvidenceBody } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';

/** How often it is looked whether a declaration has run out, ms. */
const LOOK_MS = 15_000;

/** The state of isolation as it stands declared in the open job. */
@Injectable({ providedIn: 'root' })
export class IsolationNow {
  private readonly open = inject(OpenJob);
  private readonly nowMs = signal(Date.now());
  readonly now = computed(() => isolationNow(this.open.evidence(), this.nowMs()));

  constructor() {
    const timer = setInterval(() => this.nowMs.set(Date.now()), LOOK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  /** Declares anew; what was declared before is stood for by it. */
  declare(body: Omit<EvidenceBody<'isolation'>, 'version'>): void {
    const before = standingIsolations(this.open.evidence());
    this.open.record(
      'isolation',
      'isolation',
      { version: 2, ...body },
      before.length ? { supersedes: before } : {},
    );
    this.nowMs.set(Date.now());
  }
}
