import { createFeature, createReducer, on } from '@ngrx/store';
import {
  applyPatch,
  invertPatch,
  patchBetween,
  valueAt,
  type Evidence,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { JobActions } from './job.actions';
import {
  emptyState,
  MOST_UNDO,
  type JobState,
  type PendingChange,
  type SaveState,
  type ServerChange,
  type UndoStep,
} from './job.model';
import { clashOf, mergedEvidence, mineStands, theirsStand } from './rebase';

type Stamp = { changeId: string; author: PendingChange['author']; atClient: string };

function pending(
  state: JobState,
  patch: Operation[],
  label: string,
  { changeId, author, atClient }: Stamp,
): PendingChange {
  const order = Math.max(0, ...state.outbox.map((c) => c.order)) + 1;
  return {
    id: changeId,
    jobId: state.id,
    order,
    patch,
    label: label.slice(0, 200),
    author,
    atClient,
  };
}

function replay(state: JobState, stamp: Stamp, from: 'undo' | 'redo'): JobState {
  const steps = state[from];
  const step = steps.at(-1);
  if (!state.job || !step) return state;
  const rest = steps.slice(0, -1);
  const patch = from === 'undo' ? step.back : step.forth;
  let after: Job;
  try {
    after = applyPatch(state.job, patch);
  } catch {
    return {
      ...state,
      [from]: rest,
      problem: `"${step.label}" cannot be taken back: it was changed since.`,
    };
  }
  const other = from === 'undo' ? 'redo' : 'undo';
  return {
    ...state,
    job: after,
    [from]: rest,
    [other]: [...state[other], step],
    outbox: [...state.outbox, pending(state, patch, `${from}: ${step.label}`, stamp)],
    save: 'keeping',
    problem: null,
  };
}

/** Lays the waiting changes over a document that moved on; what cannot stand beside it becomes a question. */
function rebase(
  state: JobState,
  job: Job,
  revision: number,
  changes: readonly ServerChange[],
  tooFar = false,
): JobState {
  const { arrived, thinned, conflict } = clashOf(state.outbox, job, changes, {
    tooFar,
    from: state.revision,
  });
  const outbox = state.outbox
    .filter((c) => !arrived.includes(c.id))
    .map((c) => thinned.find((t) => t.id === c.id) ?? c);
  const settled: JobState = {
    ...state,
    base: job,
    revision,
    outbox,
    conflict,
    // A step back would bring a plan that is no longer that of the job.
    ...(thinned.length ? { replan: true, undo: [], redo: [] } : {}),
  };
  if (conflict) return { ...settled, job, save: 'here' };
  const next: JobState = {
    ...settled,
    job: outbox.reduce((doc, change) => applyPatch(doc, change.patch), job),
  };
  return { ...next, save: saveOf(next) };
}

/** `server` once nothing waits; otherwise as it was. */
const saveOf = (s: JobState): SaveState =>
  s.outbox.length || s.waitingEvidence.length || s.made
    ? s.save
    : s.save === 'waiting'
      ? 'waiting'
      : 'server';
/** After an answer of the server nothing is waited for any more. */
const answered = (s: JobState): JobState => ({
  ...s,
  save: saveOf({ ...s, save: s.save === 'waiting' ? 'here' : s.save }),
});

export const jobFeature = createFeature({
  name: 'job',
  reducer: createReducer(
    emptyState,
    on(JobActions.open, (_s, { id }): JobState => ({ ...emptyState, id, status: 'loading' })),
    on(JobActions.close, (): JobState => emptyState),
    on(JobActions.openFailed, (s, { id, status, problem }): JobState =>
      s.id === id ? { ...s, status, problem } : s,
    ),
    on(JobActions.opened, (s, { type: _type, online, ...loaded }): JobState => {
      if (s.id !== loaded.id) return s;
      const waits = loaded.outbox.length > 0 || loaded.waitingEvidence.length > 0 || loaded.made;
      const ready: JobState = {
        ...emptyState,
        ...loaded,
        problem: loaded.problem ?? null,
        base: loaded.job,
        status: 'ready',
        save: waits ? 'here' : online ? 'server' : 'waiting',
      };
      const evidence = mergedEvidence(loaded.evidence, loaded.waitingEvidence);
      if (loaded.conflict) return { ...ready, evidence };
      return {
        ...ready,
        job: loaded.outbox.reduce((doc, c) => applyPatch(doc, c.patch), loaded.job),
        evidence,
      };
    }),
    on(JobActions.edit, (s, { after, label, ...stamp }): JobState => {
      if (!s.job) return s;
      const patch = patchBetween(s.job, after);
      if (patch.length === 0) return s;
      const next: JobState = {
        ...s,
        job: after,
        outbox: [...s.outbox, pending(s, patch, label, stamp)],
        save: 'keeping',
        problem: null,
        replan: false,
      };
      const step: UndoStep = {
        label,
        back: invertPatch(s.job, after),
        forth: [...guards(s.job, patch), ...patch],
      };
      return { ...next, undo: [...s.undo, step].slice(-MOST_UNDO), redo: [] };
    }),
    on(JobActions.undo, (s, stamp): JobState => replay(s, stamp, 'undo')),
    on(JobActions.redo, (s, stamp): JobState => replay(s, stamp, 'redo')),
    on(JobActions.kept, (s, { inBrowser }): JobState =>
      s.save === 'keeping' || s.save === 'unkept'
        ? { ...s, save: inBrowser ? 'here' : 'unkept' }
        : s,
    ),
    on(JobActions.saved, (s, { change, job, since = [] }): JobState => {
      if (change.revision < s.revision) return s;
      // It went in beside what others had changed, or was made in another window.
      if (since.length || !s.outbox.some((c) => c.id === change.id))
        return answered(rebase(s, job, change.revision, [...since, change]));
      return answered({
        ...s,
        base: job,
        revision: change.revision,
        outbox: s.outbox.filter((c) => c.id !== change.id),
        problem: null,
      });
    }),
    on(JobActions.stale, (s, { job, revision, changes, tooFar }): JobState =>
      revision < s.revision ? s : answered(rebase(s, job, revision, changes, tooFar)),
    ),
    on(JobActions.refused, (s, { changeId, problem }): JobState => {
      if (!s.outbox.some((c) => c.id === changeId)) return s;
      const outbox = s.outbox.filter((c) => c.id !== changeId);
      const conflict = s.base ? clashOf(outbox, s.base, []).conflict : null;
      const job =
        s.base && !conflict ? outbox.reduce((doc, c) => applyPatch(doc, c.patch), s.base) : s.base;
      return answered({ ...s, outbox, job, conflict, problem, undo: [], redo: [] });
    }),
    on(JobActions.unrecorded, (s, { evidenceId, problem }): JobState => {
      const without = (list: readonly Evidence[]) => list.filter((e) => e.id !== evidenceId);
      return answered({
        ...s,
        evidence: without(s.evidence),
        waitingEvidence: without(s.waitingEvidence),
        problem,
      });
    }),
    on(JobActions.waiting, (s, { problem }): JobState => ({
      ...s,
      save: s.save === 'unkept' || s.save === 'keeping' ? s.save : 'waiting',
      problem: problem || null,
    })),
    on(JobActions.caughtUp, (s): JobState => ({
      ...answered(s),
      problem: s.save === 'waiting' ? null : s.problem,
    })),
    on(JobActions.keepMine, (s): JobState => {
      if (!s.conflict || !s.base) return s;
      return {
        ...s,
        ...mineStands(s.base, s.outbox, s.conflict),
        save: 'keeping',
        undo: [],
        redo: [],
      };
    }),
    on(JobActions.takeTheirs, (s): JobState => {
      if (!s.conflict || !s.base) return s;
      const next: JobState = {
        ...s,
        ...theirsStand(s.base, s.outbox, s.conflict),
        undo: [],
        redo: [],
      };
      return {
        ...next,
        save: next.outbox.length || next.waitingEvidence.length ? 'keeping' : 'server',
      };
    }),
    on(JobActions.made, (s): JobState => answered({ ...s, made: false })),
    on(JobActions.say, (s, { problem }): JobState => ({ ...s, problem })),
    on(JobActions.record, (s, { evidence }): JobState => ({
      ...s,
      evidence: [...s.evidence, evidence],
      waitingEvidence: [...s.waitingEvidence, evidence],
      save: 'keeping',
    })),
    on(JobActions.recorded, (s, { stored }): JobState => {
      const ids = new Set(stored.map((e) => e.id));
      const waitingEvidence = s.waitingEvidence.filter((e) => !ids.has(e.id));
      return answered({
        ...s,
        evidence: mergedEvidence(s.evidence, stored),
        waitingEvidence,
        problem: null,
      });
    }),
    on(JobActions.evidenceLoaded, (s, { evidence }): JobState => ({
      ...s,
      evidence: mergedEvidence(evidence, s.waitingEvidence),
    })),
    on(JobActions.planned, (s): JobState => ({ ...s, replan: false })),
    on(JobActions.dismiss, (s): JobState => ({ ...s, problem: null })),
  ),
});

/** Tests that keep a repeated step from running over what came between. */
function guards(before: Job, patch: readonly Operation[]): Operation[] {
  return patch.flatMap((operation) =>
    operation.op === 'replace' || operation.op === 'remove'
      ? [{ op: 'test' as const, path: operation.path, value: valueAt(before, operation.path) }]
      : [],
  );
}
