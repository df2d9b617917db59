import type { Action } from '@ngrx/store';
import type { News } from './courier';
import { JobActions } from './job.actions';
import type { JobState } from './job.model';
import type { LocalStore } from './local-store';

/** What a person does to the open job. */
export type Step = ReturnType<
  | typeof JobActions.edit
  | typeof JobActions.undo
  | typeof JobActions.redo
  | typeof JobActions.record
  | typeof JobActions.keepMine
  | typeof JobActions.takeTheirs
>;

/** Keeps what one step added. @returns whether the browser has it */
export function keepStep(
  local: LocalStore,
  action: Step,
  { id, outbox, conflict, undo, redo }: JobState,
): Promise<boolean> {
  if (action.type === JobActions.keepMine.type || action.type === JobActions.takeTheirs.type)
    return local.settle(id, action.waiting, outbox, conflict);
  if (action.type === JobActions.record.type)
    return local.keep(id, { evidence: [action.evidence], undo, redo });
  return local.keep(id, { changes: outbox.filter((c) => c.id === action.changeId), undo, redo });
}

/** What news of the courier means for the open job. */
export function actionOf(news: Exclude<News, { kind: 'drained' }>): Action {
  switch (news.kind) {
    case 'saved':
      return JobActions.saved({ change: news.change, job: news.job, since: news.since });
    case 'stale':
      return JobActions.stale({
        job: news.job,
        revision: news.revision,
        changes: news.changes,
        tooFar: news.tooFar,
      });
    case 'refused':
      return JobActions.refused({ changeId: news.changeId, problem: news.problem });
    case 'recorded':
      return JobActions.recorded({ stored: news.stored });
    case 'unrecorded':
      return JobActions.unrecorded({ evidenceId: news.evidenceId, problem: news.problem });
    case 'waiting':
      return JobActions.waiting({ problem: news.problem });
    case 'made':
      return JobActions.made();
  }
}
