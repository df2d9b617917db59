import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Evidence, Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { PendingChange, UndoStep } from './job.model';

interface Schema extends DBSchema {
  base: { key: string; value: { id: string; job: Job; revision: number; archived: boolean; profile: Profile; evidence: readonly Evidence[] } };
  outbox: { key: string; value: PendingChange; indexes: { job: string } };
  evidence: { key: string; value: Evidence; indexes: { job: string } };
  undo: { key: string; value: { id: string; undo: readonly UndoStep[]; redo: readonly UndoStep[] } };
}

/** What this browser keeps by itself: the documents as last read, and everything that waits to be sent. */
@Injectable({ providedIn: 'root' })
export class LocalStore {
  private db: Promise<IDBPDatabase<Schema>> | undefined;

  private open(): Promise<IDBPDatabase<Schema>> {
    this.db ??= openDB<Schema>('tactron', 1, {
      upgrade: (db) => {
        db.createObjectStore('base', { keyPath: 'id' });
        db.createObjectStore('outbox', { keyPath: 'id' }).createIndex('job', 'jobId');
        db.createObjectStore('evidence', { keyPath: 'id' }).createIndex('job', 'jobId');
        db.createObjectStore('undo', { keyPath: 'id' });
      },
    });
    return this.db;
  }

  async load(id: string) {
    const db = await this.open();
    const [base, outbox, evidence, steps] = await Promise.all([
      db.get('base', id),
      db.getAllFromIndex('outbox', 'job', id),
      db.getAllFromIndex('evidence', 'job', id),
      db.get('undo', id),
    ]);
    return { base, outbox: outbox.sort((x, y) => x.order - y.order), evidence, undo: steps?.undo ?? [], redo: steps?.redo ?? [] };
  }

  async keepBase(base: Schema['base']['value']): Promise<void> {
    await (await this.open()).put('base', base);
  }

  /** Makes what is kept agree with what waits now; resolved when the browser has it. */
  async keep(
    id: string,
    outbox: readonly PendingChange[],
    evidence: readonly Evidence[],
    undo: readonly UndoStep[],
    redo: readonly UndoStep[],
    sent: readonly string[],
  ): Promise<void> {
    const tx = (await this.open()).transaction(['outbox', 'evidence', 'undo'], 'readwrite');
    for (const change of outbox) void tx.objectStore('outbox').put(change);
    for (const e of evidence) void tx.objectStore('evidence').put(e);
    for (const key of sent) {
      void tx.objectStore('outbox').delete(key);
      void tx.objectStore('evidence').delete(key);
    }
    void tx.objectStore('undo').put({ id, undo, redo });
    await tx.done;
  }
}
