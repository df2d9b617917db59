import { Injectable, InjectionToken, inject, signal } from '@angular/core';
import { applyPatch, type Evidence, type Job } from '@tactron/core/job';
import type { Conflict, PendingChange, ServerChange, UndoStep } from './job.model';
import { OWNER_HERE, storeName } from './owner';
import { clashOf, mergedEvidence } from './rebase';
import {
  Shelf,
  type Act,
  type KeptBase,
  type KeptFile,
  type MadeJob,
  type SetAside,
  type WaitingEvidence,
} from './shelf';

export const SHELF = new InjectionToken<Shelf>('shelf', {
  providedIn: 'root',
  factory: () => new Shelf(storeName(inject(OWNER_HERE))),
});

const byOrder = <T extends { readonly order: number }>(rows: T[]): T[] =>
  rows.sort((x, y) => x.order - y.order);
/** An earlier release kept the piece bare. */
const ordered = (row: WaitingEvidence): WaitingEvidence =>
  'evidence' in row
    ? row
    : {
        id: (row as Evidence).id,
        jobId: (row as Evidence).jobId,
        order: 0,
        evidence: row as Evidence,
      };

/** What had been waiting for the server when it was last looked at, by job; in a second place, to notice when the first is lost. */
type Waiting = Record<
  string,
  {
    readonly tag: string;
    readonly changes: number;
    readonly readings: number;
    readonly made: boolean;
  }
>;
const waitingOf = (owner: string): string => `tactron.waiting${owner ? `.${owner}` : ''}`;

export interface LostJob {
  readonly id: string;
  readonly tag: string;
  readonly text: string;
}

const locks = (): LockManager | undefined =>
  typeof navigator === 'undefined' ? undefined : navigator.locks;

/** Runs acts of one name one after the other, over all windows of this browser where it can. */
export class InTurn {
  private readonly tails = new Map<string, Promise<unknown>>();

  run<T>(name: string, act: () => Promise<T>): Promise<T> {
    const manager = locks();
    if (manager) return manager.request(name, act) as Promise<T>;
    const next = (this.tails.get(name) ?? Promise.resolve()).then(act, act);
    this.tails.set(
      name,
      next.catch(() => undefined),
    );
    return next;
  }
}

/** What this browser keeps by itself: the documents as last read, and everything that waits to be sent. */
@Injectable({ providedIn: 'root' })
export class LocalStore {
  private readonly shelf = inject(SHELF);
  private readonly noted = waitingOf(inject(OWNER_HERE));
  private readonly turn = new InTurn();
  /** Something typed is in this window alone: the browser has no room for it. */
  readonly unkept = signal(false);

  async load(id: string) {
    const [base, outbox, evidence, steps, conflict, made] = await Promise.all([
      this.shelf.get('base', id),
      this.outbox(id),
      this.waitingEvidence(id),
      this.shelf.get('undo', id),
      this.shelf.get('conflict', id),
      this.shelf.get('made', id),
    ]);
    return {
      base,
      outbox,
      evidence,
      undo: steps?.undo ?? [],
      redo: steps?.redo ?? [],
      conflict: conflict ?? null,
      made,
    };
  }

  async outbox(jobId: string): Promise<PendingChange[]> {
    return byOrder(await this.shelf.ofJob('outbox', jobId));
  }

  readonly base = (id: string) => this.shelf.get('base', id);
  readonly bases = () => this.shelf.all('base');
  readonly madeJobs = async (): Promise<MadeJob[]> => byOrder(await this.shelf.all('made'));
  readonly conflict = (jobId: string) => this.shelf.get('conflict', jobId);
  readonly aside = () => this.shelf.all('aside');
  readonly file = (sha256: string) => this.shelf.get('files', sha256);
  readonly profile = async (sha256: string) => (await this.shelf.get('profiles', sha256))?.profile;
  readonly list = async <T>(name: string): Promise<readonly T[] | undefined> =>
    (await this.shelf.get('lists', name))?.rows as readonly T[] | undefined;

  /** Evidence of a job that waits, in the order in which it was taken. */
  async waitingEvidence(jobId: string): Promise<Evidence[]> {
    return byOrder((await this.shelf.ofJob('evidence', jobId)).map(ordered)).map((w) => w.evidence);
  }

  /** Jobs for which something waits, in the order in which it is to be sent. */
  async jobsWaiting(): Promise<string[]> {
    const [made, outbox, evidence] = await Promise.all([
      this.madeJobs(),
      this.shelf.all('outbox'),
      this.shelf.all('evidence'),
    ]);
    return [
      ...new Set([
        ...made.map((m) => m.id),
        ...byOrder(outbox).map((c) => c.jobId),
        ...evidence.map((e) => e.jobId),
      ]),
    ];
  }

  /** Files of a job that the server has not got. */
  async unsentFiles(jobId: string): Promise<KeptFile[]> {
    return (await this.shelf.ofJob('files', jobId)).filter((f) => f.sent === 0);
  }

  keepList(name: string, rows: unknown): Promise<boolean> {
    return this.write([{ put: 'lists', value: { name, rows } }]);
  }

  keepProfile(sha256: string, profile: KeptBase['profile']): Promise<boolean> {
    return this.write([{ put: 'profiles', value: { sha256, profile } }]);
  }

  keepFile(file: KeptFile): Promise<boolean> {
    return this.write([{ put: 'files', value: file }]);
  }

  /** How much of this owner's work the server has not got, over all jobs. */
  async unsent(): Promise<{ readonly changes: number; readonly records: number }> {
    const [made, outbox, evidence] = await Promise.all([
      this.madeJobs(),
      this.shelf.all('outbox'),
      this.shelf.all('evidence'),
    ]);
    return { changes: made.length + outbox.length, records: evidence.length };
  }

  /** Called when the browser's store was deleted under this window: what the window still holds is to be kept again. */
  onDeleted(then: () => void): void {
    this.shelf.onDeleted = then;
  }

  /** Puts back what a window still holds of a job after the store was deleted under it. */
  async putBack(
    base: KeptBase,
    more: {
      readonly outbox: readonly PendingChange[];
      readonly evidence: readonly Evidence[];
      readonly undo: readonly UndoStep[];
      readonly redo: readonly UndoStep[];
    },
  ): Promise<void> {
    const { outbox, evidence, undo, redo } = more;
    await this.write([{ put: 'base', value: base }]);
    await this.keep(base.id, { changes: outbox, evidence, undo, redo });
  }

  /** The document of a job for which something waits and of which nothing is kept here any more. */
  async takeBase(base: KeptBase): Promise<void> {
    await this.alone(base.id, async () => {
      if (!(await this.shelf.get('base', base.id)))
        await this.write([{ put: 'base', value: base }]);
    });
  }

  /** The document as the server gave it; left as it is when something waits or a newer one is here. @returns whether it was taken */
  async absorb(base: KeptBase): Promise<boolean> {
    return this.alone(base.id, async () => {
      const [here, outbox, made] = await Promise.all([
        this.shelf.get('base', base.id),
        this.outbox(base.id),
        this.shelf.get('made', base.id),
      ]);
      if (made || outbox.length > 0 || (here && here.revision > base.revision)) return false;
      await this.write([{ put: 'base', value: base }]);
      return true;
    });
  }

  async absorbEvidence(jobId: string, evidence: readonly Evidence[]): Promise<void> {
    await this.alone(jobId, async () => {
      const base = await this.shelf.get('base', jobId);
      if (base) await this.write([{ put: 'base', value: { ...base, evidence } }]);
    });
  }

  /** Keeps what was just done; resolved when the browser has it. @returns false when it is in this window's memory alone */
  async keep(
    jobId: string,
    more: {
      changes?: readonly PendingChange[];
      evidence?: readonly Evidence[];
      undo: readonly UndoStep[];
      redo: readonly UndoStep[];
    },
  ) {
    const last = more.evidence?.length
      ? Math.max(0, ...(await this.shelf.ofJob('evidence', jobId)).map((w) => ordered(w).order))
      : 0;
    const acts: Act[] = [
      ...(more.changes ?? []).map((value): Act => ({ put: 'outbox', value })),
      ...(more.evidence ?? []).map((evidence, i): Act => ({
        put: 'evidence',
        value: { id: evidence.id, jobId, order: last + 1 + i, evidence },
      })),
      { put: 'undo', value: { id: jobId, undo: more.undo, redo: more.redo } },
    ];
    const kept = await this.write(acts);
    await this.noteWaiting(jobId);
    return kept;
  }

  /** An answer to a conflict: what waited gives way to what was decided. */
  async settle(
    jobId: string,
    gone: readonly string[],
    instead: readonly PendingChange[],
    next: Conflict | null,
  ): Promise<boolean> {
    const acts: Act[] = [
      ...gone.map((key): Act => ({ drop: 'outbox', key })),
      ...instead.map((value): Act => ({ put: 'outbox', value })),
      next ? { put: 'conflict', value: { ...next, id: jobId } } : { drop: 'conflict', key: jobId },
      { put: 'undo', value: { id: jobId, undo: [], redo: [] } },
    ];
    const kept = await this.write(acts);
    await this.noteWaiting(jobId);
    return kept;
  }

  async keepMade(made: MadeJob, base: KeptBase): Promise<boolean> {
    const kept = await this.write([
      { put: 'made', value: made },
      { put: 'base', value: base },
    ]);
    await this.noteWaiting(made.id);
    return kept;
  }

  /** A job that was made here and refused: nothing of it stays but what was set aside. */
  async forgetJob(jobId: string): Promise<void> {
    await this.write(
      (['base', 'made', 'undo', 'conflict'] as const).map((drop): Act => ({ drop, key: jobId })),
    );
    await this.noteWaiting(jobId);
  }

  async madeSent(jobId: string): Promise<void> {
    await this.write([{ drop: 'made', key: jobId }]);
    await this.noteWaiting(jobId);
  }

  /** A change has arrived: the document as the server has it moves on by it. @returns that document */
  async changeSent(change: PendingChange, revision: number): Promise<Job | undefined> {
    const job = await this.alone(change.jobId, async () => {
      const base = await this.shelf.get('base', change.jobId);
      const acts: Act[] = [{ drop: 'outbox', key: change.id }];
      const next =
        base && revision > base.revision
          ? { ...base, job: applyPatch(base.job, change.patch), revision }
          : undefined;
      await this.write(next ? [...acts, { put: 'base', value: next }] : acts);
      return (next ?? base)?.job;
    });
    await this.noteWaiting(change.jobId);
    return job;
  }

  /** The server has moved on: what waits is laid over it where it touches nothing in common, and asked about where it does. */
  async rebased(
    jobId: string,
    job: Job,
    revision: number,
    changes: readonly ServerChange[],
    tooFar = false,
  ): Promise<void> {
    await this.alone(jobId, async () => {
      const [base, outbox] = await Promise.all([this.shelf.get('base', jobId), this.outbox(jobId)]);
      const { arrived, thinned, conflict } = clashOf(outbox, job, changes, {
        tooFar,
        from: base?.revision ?? -1,
      });
      const acts: Act[] = [
        ...arrived.map((key): Act => ({ drop: 'outbox', key })),
        ...thinned.map((value): Act => ({ put: 'outbox', value })),
      ];
      if (thinned.length) acts.push({ put: 'undo', value: { id: jobId, undo: [], redo: [] } });
      if (base && revision >= base.revision)
        acts.push({ put: 'base', value: { ...base, job, revision } });
      if (conflict) acts.push({ put: 'conflict', value: { ...conflict, id: jobId } });
      await this.write(acts);
    });
    await this.noteWaiting(jobId);
  }

  async evidenceSent(jobId: string, stored: readonly Evidence[]): Promise<void> {
    await this.alone(jobId, async () => {
      const base = await this.shelf.get('base', jobId);
      const acts: Act[] = stored.map((e) => ({ drop: 'evidence', key: e.id }));
      await this.write(
        base
          ? [
              ...acts,
              { put: 'base', value: { ...base, evidence: mergedEvidence(base.evidence, stored) } },
            ]
          : acts,
      );
    });
    await this.noteWaiting(jobId);
  }

  /** @param sent 1 when the server has it, 2 when it will not take it */
  async fileSent(sha256: string, sent: 1 | 2 = 1): Promise<void> {
    const file = await this.shelf.get('files', sha256);
    if (file) await this.write([{ put: 'files', value: { ...file, sent } }]);
  }

  /** What the server refuses leaves the queue and is kept beside it. */
  async setAside(
    from: 'outbox' | 'evidence' | 'made',
    item: SetAside['item'],
    why: string,
  ): Promise<void> {
    const jobId = 'jobId' in item ? item.jobId : item.id;
    const tag = (await this.shelf.get('base', jobId))?.job.tag ?? jobId;
    const value: SetAside = { id: item.id, jobId, tag, why, at: new Date().toISOString(), item };
    await this.write([
      { drop: from, key: item.id },
      { put: 'aside', value },
    ]);
    await this.noteWaiting(jobId);
  }

  async forgetAside(id: string): Promise<void> {
    await this.write([{ drop: 'aside', key: id }]);
  }

  /** What had not been sent and is no longer here: the browser has lost its store. */
  async lost(): Promise<LostJob[]> {
    const noted = readWaiting(this.noted);
    const here = new Set(await this.jobsWaiting());
    return Object.entries(noted).flatMap(([id, w]) =>
      here.has(id) ? [] : [{ id, tag: w.tag, text: lostText(w) }],
    );
  }

  forgetLost(): void {
    localStorage.removeItem(this.noted);
  }

  /** Base and outbox of a job change under one lock, whichever window does it. */
  private alone<T>(jobId: string, act: () => Promise<T>): Promise<T> {
    return this.turn.run(`tactron.job.${jobId}`, act);
  }

  /** @returns whether the browser has everything a person made, this and what came before */
  private async write(acts: readonly Act[]): Promise<boolean> {
    const kept = await this.shelf.write(acts);
    this.unkept.set(this.shelf.unkept);
    return kept && !this.shelf.unkept;
  }

  private async noteWaiting(jobId: string): Promise<void> {
    const { base, outbox, evidence, made } = await this.load(jobId);
    const { [jobId]: _before, ...others } = readWaiting(this.noted);
    const none = outbox.length + evidence.length === 0 && !made;
    const now = {
      tag: base?.job.tag ?? made?.job.tag ?? '',
      changes: outbox.length,
      readings: evidence.length,
      made: made !== undefined,
    };
    try {
      localStorage.setItem(this.noted, JSON.stringify(none ? others : { ...others, [jobId]: now }));
    } catch {
      // No room for the note either: then nothing can be noticed later, and the window says already that it keeps nothing.
    }
  }
}

function readWaiting(noted: string): Waiting {
  try {
    return JSON.parse(localStorage.getItem(noted) ?? '{}') as Waiting;
  } catch {
    return {};
  }
}

const several = (n: number, one: string): string =>
  n === 0 ? '' : `${n} ${one}${n === 1 ? '' : 's'}`;
const lostText = (w: Waiting[string]): string =>
  [
    w.made ? 'the job itself' : '',
    several(w.changes, 'change'),
    several(w.readings, 'reading or other record'),
  ]
    .filter(Boolean)
    .join(', ');
