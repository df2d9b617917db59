import { Injectable, InjectionToken, inject, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { applyPatch, type Evidence, type Job } from '@tactron/core/job';
import { Api, ApiError, isForGood } from './api';
import type { PendingChange, ServerChange } from './job.model';
import { InTurn, LocalStore } from './local-store';
import { OWNER_HERE } from './owner';
import type { KeptBase, MadeJob } from './shelf';

const RETRY_MS = [2000, 2000, 4000, 5000];
const MOST_EVIDENCE = 100;

/** What happened to something that waited, or to the document it waits for; told to every window. */
export type News =
  | {
      readonly kind: 'saved';
      readonly jobId: string;
      readonly change: ServerChange;
      readonly job: Job;
      /** Changes of others that it went in beside. */
      readonly since?: readonly ServerChange[];
    }
  | {
      readonly kind: 'stale';
      readonly jobId: string;
      readonly job: Job;
      readonly revision: number;
      readonly changes: readonly ServerChange[];
      readonly tooFar?: boolean;
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

/** Carries news to the other windows of this browser that show the same person's work. */
export const NEWS_CHANNEL = new InjectionToken<BroadcastChannel | null>('news channel', {
  providedIn: 'root',
  factory: () =>
    typeof BroadcastChannel === 'undefined'
      ? null
      : new BroadcastChannel(`tactron.news.${inject(OWNER_HERE)}`),
});

/** How often something is sent that makes the server fail, before it is set aside. */
const MOST_TRIES = 6;

/** The server cannot be reached, or will not take anything now: later again. */
class Later extends Error {}

/** The server is not reached, busy, or asks who this is: nothing can be sent now. Anything else concerns one job. */
const holdsUpAll = ({ status, body }: ApiError): boolean =>
  [0, 401, 408, 429, 502, 503, 504, 507].includes(status) ||
  ['urn:tactron:problem:reload', 'urn:tactron:problem:otherAccount'].includes(String(body['type']));

const isClosed = ({ body }: ApiError): boolean => body['type'] === 'urn:tactron:problem:closed';

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
  /** How often the server failed at a thing, by its id. */
  private readonly tries = new Map<string, number>();
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
    let held: ApiError | undefined;
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
        if (holdsUpAll(error)) throw new Later(error.message);
        if (error.status !== 404) held = error;
      }
    }
    if (held) throw new Later(held.message);
  }

  /** Whether a thing is given up: refused for good, or the server has failed at it again and again. */
  private isOver(error: ApiError, id: string): boolean {
    if (isForGood(error)) return true;
    if (error.status !== 500) return false;
    const tries = (this.tries.get(id) ?? 0) + 1;
    this.tries.set(id, tries);
    return tries >= MOST_TRIES;
  }

  /** @returns whether the job is on the server */
  private async sendMade(made: MadeJob): Promise<boolean> {
    try {
      if (made.site) await this.api.addSite(made.site);
      await this.api.addJob(made.job, made.author, made.atClient);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (this.isOver(error, made.id)) {
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
      if (!change) return;
      const base = (await this.local.base(jobId)) ?? (await this.takenBase(jobId));
      try {
        const { revision, since } = await this.api.change(jobId, {
          ...change,
          base: base.revision,
        });
        await this.arrived(base, { ...change, revision }, since ?? []);
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (error.status === 412) await this.moved(base, error.body as unknown as Stale);
        else if (isClosed(error) && (await this.opensHere(jobId))) await this.sendEvidence(jobId);
        else if (this.isOver(error, change.id)) {
          await this.local.setAside('outbox', change, error.message);
          this.tell({ kind: 'refused', jobId, changeId: change.id, problem: error.message });
        } else throw error;
      }
    }
  }

  /** The issue under which a closed job is changed again was opened here, and waits. */
  private async opensHere(jobId: string): Promise<boolean> {
    const waiting = await this.local.waitingEvidence(jobId);
    return waiting.some((e) => e.kind === 'issue' && e.body.opens);
  }

  /** A change is on the server, beside what others had changed meanwhile. */
  private async arrived(
    base: KeptBase,
    change: PendingChange & ServerChange,
    since: readonly ServerChange[],
  ): Promise<void> {
    const { jobId, revision } = change;
    if (since.length === 0) {
      const job = await this.local.changeSent(change, revision);
      if (job) this.tell({ kind: 'saved', jobId, change, job });
      return;
    }
    const all = [...since, change];
    const job = all.reduce((doc, c) => applyPatch(doc, c.patch), base.job);
    await this.local.rebased(jobId, job, revision, all);
    this.tell({ kind: 'saved', jobId, change, job, since });
  }

  /** Others changed the same: the document as it is now is what is kept here and what they changed, or is read where that is too much. */
  private async moved(base: KeptBase, { revision, changes, tooFar }: Stale): Promise<void> {
    const jobId = base.id;
    const told = changes ? withAll(base.job, changes) : undefined;
    const now = told ? { job: told, revision } : await this.api.job(jobId);
    const far = tooFar === true || !told;
    await this.local.rebased(jobId, now.job, now.revision, changes ?? [], far);
    this.tell({ kind: 'stale', jobId, ...now, changes: changes ?? [], tooFar: far });
  }

  /** Something waits for a job of which this browser keeps nothing: the document is read from the server. */
  private async takenBase(jobId: string): Promise<KeptBase> {
    const { job, revision, archived } = await this.api.job(jobId);
    const [evidence, profile] = await Promise.all([
      this.api.evidence(jobId),
      this.api.profile(job.profile.sha256),
    ]);
    const base: KeptBase = { id: jobId, job, revision, archived, profile, evidence };
    await this.local.takeBase(base);
    return base;
  }

  /** Files first, then what names them. */
  private async sendEvidence(jobId: string): Promise<void> {
    const waiting = await this.local.waitingEvidence(jobId);
    if (!waiting.length) return;
    for (const file of await this.local.unsentFiles(jobId)) {
      try {
        await this.api.putFile(file.sha256, file.type, file.body);
        await this.local.fileSent(file.sha256);
      } catch (error) {
        if (!(error instanceof ApiError) || !this.isOver(error, file.sha256)) throw error;
        // What names it is refused in its turn, or was named by a picture that is there already.
        await this.local.fileSent(file.sha256, 2);
        await this.setFileAside(jobId, file.sha256, error.message);
      }
    }
    const left = await this.local.waitingEvidence(jobId);
    for (let at = 0; at < left.length; at += MOST_EVIDENCE)
      await this.sendPieces(jobId, left.slice(at, at + MOST_EVIDENCE));
  }

  /** A picture the server will not take is kept here, and so is the piece that names it. */
  private async setFileAside(jobId: string, sha256: string, problem: string): Promise<void> {
    for (const piece of await this.local.waitingEvidence(jobId)) {
      if (piece.kind !== 'attachment' || piece.body.sha256 !== sha256) continue;
      await this.local.setAside('evidence', piece, problem);
      this.tell({ kind: 'unrecorded', jobId, evidenceId: piece.id, problem });
    }
  }

  private async sendPieces(jobId: string, pieces: readonly Evidence[]): Promise<void> {
    try {
      const stored = await this.api.addEvidence(jobId, pieces);
      await this.local.evidenceSent(jobId, stored);
      this.tell({ kind: 'recorded', jobId, stored });
    } catch (error) {
      if (
        !(error instanceof ApiError) ||
        !(pieces.length > 1
          ? isForGood(error) || error.status === 500
          : this.isOver(error, pieces[0].id))
      )
        throw error;
      // One piece that is refused takes no other with it.
      if (pieces.length > 1) for (const piece of pieces) await this.sendPieces(jobId, [piece]);
      else {
        await this.local.setAside('evidence', pieces[0], error.message);
        this.tell({ kind: 'unrecorded', jobId, evidenceId: pieces[0].id, problem: error.message });
      }
    }
  }
}

/** What the server says of a change that cannot simply go in. */
interface Stale {
  readonly revision: number;
  readonly changes?: readonly ServerChange[];
  readonly tooFar?: boolean;
}

/** A document with what others changed; nothing where they do not fit it. */
function withAll(job: Job, changes: readonly ServerChange[]): Job | undefined {
  try {
    return changes.reduce((doc, c) => applyPatch(doc, c.patch), job);
  } catch {
    return undefined;
  }
}
