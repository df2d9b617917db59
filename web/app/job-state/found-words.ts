import { Injectable, effect, inject } from '@angular/core';
import { Api } from './api';
import { OpenJob } from './open-job';

/** Longest sentence, and most of them, that the server takes. */
const MOST = { signs: 400, lines: 200 } as const;

/**
 * Tells the server what is found of the open job, once for each revision that stands there, so that the board finds the job
 * by it. Nothing of it is evidence; without the server it is told the next time.
 */
@Injectable({ providedIn: 'root' })
export class FoundWords {
  private readonly open = inject(OpenJob);
  private readonly api = inject(Api);
  private told = '';

  constructor() {
    effect(() => {
      const { status, id, revision, outbox, made, save } = this.open.state();
      const derived = this.open.derived();
      if (status !== 'ready' || made || save !== 'server' || outbox.length > 0) return;
      if (!derived || this.open.working()) return;
      const findings = derived.findings
        .filter((f) => !f.accepted)
        .slice(0, MOST.lines)
        .map((f) => f.what.replace(/\s+/gu, ' ').slice(0, MOST.signs));
      const now = JSON.stringify([id, revision, findings]);
      if (now === this.told) return;
      this.told = now;
      this.api.tellFindings(id, revision, findings).catch(() => (this.told = ''));
    });
  }
}
