import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Author, Evidence, Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { Conflict, PendingChange, ServerChange, UndoStep } from './job.model';

interface Stamp {
  readonly changeId: string;
  readonly author: Author;
  readonly atClient: string;
}

export const JobActions = createActionGroup({
  source: 'Job',
  events: {
    'Open': props<{ id: string }>(),
    'Opened': props<{
      id: string;
      job: Job;
      revision: number;
      archived: boolean;
      profile: Profile;
      evidence: readonly Evidence[];
      waitingEvidence: readonly Evidence[];
      outbox: readonly PendingChange[];
      undo: readonly UndoStep[];
      redo: readonly UndoStep[];
      conflict: Conflict | null;
      /** The server has not got the job itself. */ made: boolean;
      online: boolean;
      problem?: string;
    }>(),
    'Open Failed': props<{ id: string; status: 'missing' | 'failed'; problem: string }>(),
    'Close': emptyProps(),
    'Edit': props<{ after: Job; label: string } & Stamp>(),
    'Undo': props<Stamp>(),
    'Redo': props<Stamp>(),
    /** The browser has what was done up to now; or has no room for it. */
    'Kept': props<{ inBrowser: boolean }>(),
    /** A change has arrived, made in this window or in another of this browser. */
    'Saved': props<{ change: ServerChange; job: Job; since?: readonly ServerChange[] }>(),
    'Stale': props<{
      job: Job;
      revision: number;
      changes: readonly ServerChange[];
      tooFar?: boolean;
    }>(),
    'Refused': props<{ changeId: string; problem: string }>(),
    'Unrecorded': props<{ evidenceId: string; problem: string }>(),
    'Waiting': props<{ problem: string }>(),
    'Caught Up': emptyProps(),
    /** The answer to a conflict, with the ids that waited when it was given. */
    'Keep Mine': props<{ waiting: readonly string[] }>(),
    'Take Theirs': props<{ waiting: readonly string[] }>(),
    'Record': props<{ evidence: Evidence }>(),
    'Recorded': props<{ stored: readonly Evidence[] }>(),
    'Evidence Loaded': props<{ evidence: readonly Evidence[] }>(),
    'Made': emptyProps(),
    /** The plan of what two people wished has been looked at. */
    'Planned': emptyProps(),
    'Say': props<{ problem: string }>(),
    'Dismiss': emptyProps(),
  },
});
