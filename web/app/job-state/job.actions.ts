import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Author, Evidence, Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { PendingChange, ServerChange, UndoStep } from './job.model';

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
      id: string; job: Job; revision: number; archived: boolean; profile: Profile; evidence: readonly Evidence[]; waitingEvidence: readonly Evidence[];
      outbox: readonly PendingChange[]; undo: readonly UndoStep[]; redo: readonly UndoStep[]; online: boolean;
    }>(), // prettier-ignore
    'Open Failed': props<{ id: string; status: 'missing' | 'failed'; problem: string }>(),
    'Close': emptyProps(),
    'Edit': props<{ after: Job; label: string; /** Follows from an edit by itself: no step of its own to take back. */ follows?: boolean } & Stamp>(),
    'Undo': props<Stamp>(),
    'Redo': props<Stamp>(),
    'Kept': emptyProps(),
    'Saved': props<{ changeId: string; revision: number }>(),
    'Stale': props<{ job: Job; revision: number; changes: readonly ServerChange[] }>(),
    'Refused': props<{ changeId: string; problem: string }>(),
    'Waiting': props<{ problem: string }>(),
    'Keep Mine': props<{ changeId: string }>(),
    'Take Theirs': emptyProps(),
    'Record': props<{ evidence: Evidence }>(),
    'Recorded': props<{ stored: readonly Evidence[] }>(),
    'Evidence Loaded': props<{ evidence: readonly Evidence[] }>(),
    'Dismiss': emptyProps(),
  },
});
