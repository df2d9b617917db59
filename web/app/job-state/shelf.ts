import {
  deleteDB,
  openDB,
  type DBSchema,
  type IDBPDatabase,
  type IDBPTransaction,
  type StoreNames,
  type StoreValue,
} from 'idb';
import { upgradeJob, upgradePatch, type Author, type Evidence, type Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { Conflict, PendingChange, UndoStep } from './job.model';

/** A job made in this browser that no server has yet; its site too, where that is new. */
export interface MadeJob {
  readonly id: string;
  readonly order: number;
  readonly job: Job;
  readonly site?: { readonly id: string; readonly name: string };
  readonly author: Author;
  readonly atClient: string;
}

/** What the server would not take, kept so that nothing typed is lost. */
export interface SetAside {
  readonly id: string;
  readonly jobId: string;
  readonly tag: string;
  readonly why: string;
  readonly at: string;
  readonly item: PendingChange | Evidence | MadeJob;
}

/** A piece of evidence that waits, with its place in the order in which it was taken. */
export interface WaitingEvidence {
  readonly id: string;
  readonly jobId: string;
  readonly order: number;
  readonly evidence: Evidence;
}

export interface KeptFile {
  readonly sha256: string;
  readonly jobId: string;
  readonly type: string;
  readonly body: Blob;
  /** 1 when the server has it too; 2 when it will not take it. */
  readonly sent: 0 | 1 | 2;
}

export interface KeptBase {
  readonly id: string;
  readonly job: Job;
  readonly revision: number;
  readonly archived: boolean;
  readonly profile: Profile;
  readonly evidence: readonly Evidence[];
}

export interface Stores extends DBSchema {
  base: { key: string; value: KeptBase };
  outbox: { key: string; value: PendingChange; indexes: { job: string } };
  evidence: { key: string; value: WaitingEvidence; indexes: { job: string } };
  undo: {
    key: string;
    value: { id: string; undo: readonly UndoStep[]; redo: readonly UndoStep[] };
  };
  conflict: { key: string; value: Conflict & { id: string } };
  made: { key: string; value: MadeJob };
  files: { key: string; value: KeptFile; indexes: { job: string } };
  aside: { key: string; value: SetAside };
  profiles: { key: string; value: { sha256: string; profile: Profile } };
  lists: { key: string; value: { name: string; rows: unknown } };
}
export type StoreName = StoreNames<Stores>;

export type Act =
  | { [S in StoreName]: { readonly put: S; readonly value: StoreValue<Stores, S> } }[StoreName]
  | { readonly drop: StoreName; readonly key: string };

const keyOf: Readonly<Record<StoreName, string>> = {
  base: 'id',
  outbox: 'id',
  evidence: 'id',
  undo: 'id',
  conflict: 'id',
  made: 'id',
  files: 'sha256',
  aside: 'id',
  profiles: 'sha256',
  lists: 'name',
};
const byJob: readonly StoreName[] = ['outbox', 'evidence', 'files'];

/** What cannot be had again from the server. */
const typed: readonly StoreName[] = ['outbox', 'evidence', 'made', 'files', 'aside'];

type Row = { readonly jobId?: string };

/**
 * IndexedDB, and this window's memory for what IndexedDB would not take: a full or missing store loses nothing while the window
 * stays open. What was written to memory only is told by `write`.
 */
export class Shelf {
  private db: Promise<IDBPDatabase<Stores>> | undefined;
  private readonly memory = new Map<StoreName, Map<string, unknown>>();
  private opened = false;
  /** Told when the store was deleted under this window: site data cleared, or the browser made room. */
  onDeleted: () => void = () => undefined;

  constructor(private readonly name = 'tactron') {}

  async get<S extends StoreName>(
    store: S,
    key: string,
  ): Promise<StoreValue<Stores, S> | undefined> {
    const held = this.memory.get(store);
    if (held?.has(key)) return (held.get(key) ?? undefined) as StoreValue<Stores, S> | undefined;
    return this.read((db) => db.get(store, key as never), undefined);
  }

  async all<S extends StoreName>(store: S): Promise<StoreValue<Stores, S>[]> {
    return this.merged(store, await this.read((db) => db.getAll(store), []), () => true);
  }

  async ofJob<S extends 'outbox' | 'evidence' | 'files'>(
    store: S,
    jobId: string,
  ): Promise<StoreValue<Stores, S>[]> {
    const rows = await this.read(
      (db) => db.getAllFromIndex(store, 'job' as never, jobId as never),
      [] as StoreValue<Stores, S>[],
    );
    return this.merged(store, rows, (row) => (row as Row).jobId === jobId);
  }

  /** Puts and drops together, or in memory when the browser has no room. @returns whether the browser has it */
  async write(acts: readonly Act[]): Promise<boolean> {
    if (acts.length === 0) return true;
    try {
      await this.commit(acts);
      for (const act of acts)
        this.memory.get('put' in act ? act.put : act.drop)?.delete(this.key(act));
      return true;
    } catch {
      for (const act of acts) {
        const store = 'put' in act ? act.put : act.drop;
        const held = this.memory.get(store) ?? new Map<string, unknown>();
        this.memory.set(store, held.set(this.key(act), 'put' in act ? act.value : null));
      }
      return false;
    }
  }

  private async commit(acts: readonly Act[]): Promise<void> {
    const stores = [...new Set(acts.map((a) => ('put' in a ? a.put : a.drop)))];
    const tx = (await this.open()).transaction(stores, 'readwrite', { durability: 'strict' });
    tx.done.catch(() => undefined);
    try {
      for (const act of acts) {
        const done =
          'put' in act
            ? tx.objectStore(act.put).put(act.value as never)
            : tx.objectStore(act.drop).delete(act.key);
        done.catch(() => undefined);
      }
    } catch (error) {
      tx.abort();
      throw error;
    }
    await tx.done;
  }

  /** Something a person made is held in this window's memory alone. */
  get unkept(): boolean {
    return typed.some((store) =>
      [...(this.memory.get(store)?.values() ?? [])].some((value) => value !== null),
    );
  }

  async close(): Promise<void> {
    (await this.db?.catch(() => undefined))?.close();
    this.db = undefined;
  }

  /** A store that was deleted is opened anew at once: what the window still holds goes back into it. */
  private async letGo(deleted: boolean): Promise<void> {
    await this.close();
    if (deleted) await this.open().catch(() => undefined);
  }

  private key(act: Act): string {
    return 'put' in act
      ? String((act.value as unknown as Record<string, unknown>)[keyOf[act.put]])
      : act.key;
  }

  private merged<T>(store: StoreName, rows: T[], wanted: (row: T) => boolean): T[] {
    const held = this.memory.get(store);
    if (!held?.size) return rows;
    const there = rows.filter(
      (row) => !held.has(String((row as Record<string, unknown>)[keyOf[store]])),
    );
    return [
      ...there,
      ...[...held.values()].filter((row): row is T => row !== null && wanted(row as T)),
    ];
  }

  private async read<T>(act: (db: IDBPDatabase<Stores>) => Promise<T>, otherwise: T): Promise<T> {
    try {
      return await act(await this.open());
    } catch {
      return otherwise;
    }
  }

  private open(): Promise<IDBPDatabase<Stores>> {
    const opening = (this.db ??= openDB<Stores>(this.name, 3, {
      upgrade: async (db, from, _to, tx) => {
        if (from === 0 && this.opened) queueMicrotask(() => this.onDeleted());
        for (const store of Object.keys(keyOf) as StoreName[]) {
          if (db.objectStoreNames.contains(store)) continue;
          const made = db.createObjectStore(store, { keyPath: keyOf[store] });
          if (byJob.includes(store)) made.createIndex('job' as never, 'jobId');
        }
        if (from === 1 || from === 2) await secondFormat(tx);
      },
      // A newer window upgrades the store: this one lets go and opens it again when it is asked next.
      blocking: (_from, to) => void this.letGo(to === null),
      terminated: () => void this.letGo(true),
    }));
    opening.then(
      () => (this.opened = true),
      () => (this.db = undefined),
    );
    return opening;
  }
}

/** Everything of one store into another that has nothing of it, and the first is deleted. */
export async function moveStore(from: string, to: string): Promise<void> {
  if (!(await indexedDB.databases()).some((db) => db.name === from)) return;
  const [source, target] = [new Shelf(from), new Shelf(to)];
  for (const store of Object.keys(keyOf) as StoreName[]) {
    const rows = await source.all(store);
    if (!(await target.write(rows.map((value): Act => ({ put: store, value }) as Act)))) return;
  }
  await Promise.all([source.close(), target.close()]);
  await deleteDB(from);
}

type Upgrading = IDBPTransaction<Stores, StoreName[], 'versionchange'>;

/** Jobs and changes that an older release kept, as this one reads them: what waits is sent, and what was done can be undone. */
async function secondFormat(tx: Upgrading): Promise<void> {
  const each = async <S extends StoreName>(
    store: S,
    change: (value: StoreValue<Stores, S>) => StoreValue<Stores, S>,
  ): Promise<void> => {
    const rows = tx.objectStore(store);
    for (const value of await rows.getAll()) await rows.put(change(value));
  };
  const job = (kept: Job): Job => upgradeJob(kept) as Job;
  const step = (s: UndoStep): UndoStep => ({
    ...s,
    back: upgradePatch(s.back),
    forth: upgradePatch(s.forth),
  });
  const change = (c: PendingChange): PendingChange => ({ ...c, patch: upgradePatch(c.patch) });
  await each('base', (kept) => ({ ...kept, job: job(kept.job) }));
  await each('made', (made) => ({ ...made, job: job(made.job) }));
  await each('outbox', change);
  await each('undo', (steps) => ({
    ...steps,
    undo: steps.undo.map(step),
    redo: steps.redo.map(step),
  }));
  await each('conflict', (conflict) => ({ ...conflict, mine: change(conflict.mine) }));
}
