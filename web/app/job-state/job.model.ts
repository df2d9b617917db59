import type { Author, Evidence, Job, Operation } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';

/** A change that waits to be kept on the server. */
export interface PendingChange {
  readonly id: string;
  readonly jobId: string;
  readonly order: number;
  readonly patch: Operation[];
  /** What was done, in words; the line of the job's history. */
  readonly label: string;
  readonly author: Author;
  readonly atClient: string;
}

/** A step that can be taken back, or done again: the patch that does it, and the one that takes it back. */
export interface UndoStep {
  readonly label: string;
  readonly back: Operation[];
  readonly forth: Operation[];
}

export interface ServerChange {
  readonly id: string;
  readonly revision: number;
  readonly patch: Operation[];
  readonly author: Author;
  readonly atClient: string;
}

/** Two people changed the same thing: what this window wanted, and what stands on the server. */
export interface Conflict {
  readonly mine: PendingChange;
  readonly theirs: readonly ServerChange[];
  /** Everything others changed since: what else waits is held against it once this is answered. */
  readonly since: readonly ServerChange[];
  /** The two cannot stand together, whoever wrote last: what is wrong with the document that both would make. */
  readonly why?: string;
}

/** `unkept`: in this window's memory alone, since the browser has no room. */
export type SaveState = 'keeping' | 'here' | 'unkept' | 'server' | 'waiting';

export interface JobState {
  readonly status: 'none' | 'loading' | 'ready' | 'missing' | 'failed';
  readonly id: string;
  readonly job: Job | null;
  readonly base: Job | null;
  readonly revision: number;
  readonly archived: boolean;
  /** Made here, and not on the server yet. */
  readonly made: boolean;
  readonly profile: Profile | null;
  readonly evidence: readonly Evidence[];
  readonly waitingEvidence: readonly Evidence[];
  readonly outbox: readonly PendingChange[];
  readonly undo: readonly UndoStep[];
  readonly redo: readonly UndoStep[];
  readonly save: SaveState;
  readonly conflict: Conflict | null;
  readonly problem: string | null;
  /** A waiting change gave up its own plan for another's: the plan of both is to be made. */
  readonly replan: boolean;
}

export const emptyState: JobState = {
  status: 'none',
  id: '',
  job: null,
  base: null,
  revision: 0,
  archived: false,
  made: false,
  profile: null,
  evidence: [],
  waitingEvidence: [],
  outbox: [],
  undo: [],
  redo: [],
  save: 'server',
  conflict: null,
  problem: null,
  replan: false,
};

/** How many steps can be taken back. */
export const MOST_UNDO = 100;
