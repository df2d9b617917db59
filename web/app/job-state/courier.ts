import { Injectable, InjectionToken, inject, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Evidence, Job } from '@tactron/core/job';
import { Api, ApiError } from './api';
import type { ServerChange } from './job.model';
import { InTurn, LocalStore } from './local-store';
import type { MadeJob } from './shelf';

const RETRY_MS = [2000, 2000, 4000, 5000];
const MOST_EVIDENCE = 100;

/** What happened to something that waited, or to the document it waits for; told to every window. */
export type News =
  | {
      readonly kind: 'saved';
      readonly jobId: string;
      readonly change: ServerChange;
      readonly job: Job;
    }
  | {
      readonly kind: 'stale';
      readonly jobId: string;
      readonly job: Job;
      readonly revision: number;
      readonly changes: readonly ServerChange[];
    }
  | {
      readonly kind: 'refused';
      readonly jobId: string;
      readonly changeId: string;
      readonly problem: string;
    }
  | { readonly kind: 'recorded'; readonly jobId: string; readonly stored: readonly Evidence[] }
  | {
      readonly kind: 'unrecorded';
      readonly jobId: string;
      readonly evidenceId: string;
      readonly problem: string;
    }
  | { readonly kind: 'waiting'; readonly jobId: string; readonly problem: string }
  | { readonly kind: 'drained'; readonly jobId: string }
  | { readonly kind: 'made'; readonly jobId: string };

/** Carries news to the other windows of this browser. */
export const NEWS_CHANNEL = new InjectionToken<BroadcastChannel | null>('news channel', {
  providedIn: 'root',
  factory: () =>
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('tactron.news'),
});

/** The server cannot be reached, or will not take anything now: later again. */
class Later extends Error {}

/** It was refused for good: sending it again would be refused again. */
const forGood = (error: ApiError): boolean => [400, 403, 413, 422].includes(error.status);

/**
 * Carries what waits in this browser to the server: one window at a time, in order, each thing until it is answered. What the
 * server knows already it answers as the first time, so that everything arrives once.
 */
@Injectable({ providedIn: 'root' })
export class Courier {
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly turn = new InTurn();
  private readonly channel = inject(NEWS_CHANNEL);
  readonly news = new Subject<News>();
  /** The last round ended without an answer of the server. */
  readonly unreached = signal(false);
  private running: Promise<void> | undefined;
  private again = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    this.channel?.addEventListener('message', ({ data }: MessageEvent<News>) =>
      this.news.next(data),
    );
    if (typeof window !== 'undefined') window.addEventListener('online', () => void this.run());
  }

  /** Sends what waits. Called whenever something was kept; by itself again while the server does not answer. */
  run(): Promise<void> {
    this.again = true;
    return (this.running ??= this.rounds().finally(() => (this.running = undefined)));
  }

  private async rounds(): Promise<void> {
    clearTimeout(this.timer);
    try {
      while (this.again) {
        this.again = false;
        await this.turn.run('tactron.courier', () => this.round());
      }
      this.failures = 0;
      this.unreached.set(false);
    } catch (error) {
      if (!(error instanceof Later)) throw error;
      this.unreached.set(true);
      this.timer = setTimeout(
        () => void this.run(),
        RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)],
      );
    }
  }

  /** Sends nothing more by itself. */
  rest(): void {
    clearTimeout(this.timer);
  }

  private tell(news: News): void {
    this.channel?.postMessage(news);
    this.news.next(news);
  }

  private async round(): Promise<void> {
    const made = new Map((await this.local.madeJobs()).map((m) => [m.id, m]));
    for (const jobId of await this.local.jobsWaiting()) {
      try {
        const own = made.get(jobId);
        if (own && !(await this.sendMade(own))) continue;
        await this.sendChanges(jobId);
        await this.sendEvidence(jobId);
        this.tell({ kind: 'drained', jobId });
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        // That it does not answer is said in the head strip; anything else it says is told.
        this.tell({ kind: 'waiting', jobId, problem: error.status === 0 ? '' : error.message });
        // One job the server will not hear of holds up no other; a server that does not answer holds up all.
        if (error.status !== 404) throw new Later(error.message);
      }
    }
  }

  /** @returns whether the job is on the server */
  private async sendMade(made: MadeJob): Promise<boolean> {
    try {
      if (made.site) await this.api.addSite(made.site);
      await this.api.addJob(made.job, made.author, made.atClient);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (forGood(error)) {
        await this.local.setAside('made', made, error.message);
        this.tell({ kind: 'refused', jobId: made.id, changeId: made.id, problem: error.message });
        return false;
      }
      if (error.body['type'] !== 'urn:tactron:problem:jobExists') throw error;
    }
    await this.local.madeSent(made.id);
    this.tell({ kind: 'made', jobId: made.id });
    return true;
  }

  private async sendChanges(jobId: string): Promise<void> {
    for (;;) {
      if (await this.local.conflict(jobId)) return;
      const [change] = await this.local.outbox(jobId);
      const base = await this.local.base(jobId);
      if (!change || !base) return;
      try {
        const { revision } = await this.api.change(jobId, { ...change, base: base.revision });
        const job = await this.local.changeSent(change, revision);
        if (job) this.tell({ kind: 'saved', jobId, change: { ...change, revision }, job });
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (error.status === 412) {
          const stale = error.body as unknown as {
            job: Job;
            revision: number;
            changes: ServerChange[];
          };
          await this.local.rebased(jobId, stale.job, stale.revision, stale.changes);
          this.tell({ kind: 'stale', jobId, ...stale });
        } else if (forGood(error)) {
          await this.local.setAside('outbox', change, error.message);
          this.tell({ kind: 'refused', jobId, changeId: change.id, problem: error.message });
        } else throw error;
      }
    }
  }

  /** Files first, then what names them. */
  private async sendEvidence(jobId: string): Promise<void> {
    const waiting = await this.local.waitingEvidence(jobId);
    if (!waiting.length) return;
    for (const file of await this.local.unsentFiles(jobId)) {
      await this.api.putFile(file.sha256, file.type, file.body);
      await this.local.fileSent(file.sha256);
    }
    for (let at = 0; at < waiting.length; at += MOST_EVIDENCE)
      await this.sendPieces(jobId, waiting.slice(at, at + MOST_EVIDENCE));
  }

  private async sendPieces(jobId: string, pieces: readonly Evidence[]): Promise<void> {
    try {
      const stored = await this.api.addEvidence(jobId, pieces);
      await this.local.evidenceSent(jobId, stored);
      this.tell({ kind: 'recorded', jobId, stored });
    } catch (error) {
      if (!(error instanceof ApiError) || !forGood(error)) throw error;
      // One piece that is refused takes no other with it.
      if (pieces.length > 1) for (const piece of pieces) await this.sendPieces(jobId, [piece]);
      else {
        await this.local.setAside('evidence', pieces[0], error.message);
        this.tell({ kind: 'unrecorded', jobId, evidenceId: pieces[0].id, problem: error.message });
      }
    }
  }
}
