import { createFeature, createReducer, on } from '@ngrx/store';
import { applyPatch, disjoint, invertPatch, patchBetween, valueAt, type Evidence, type Job, type Operation } from '@tactron/core/job';
import { JobActions } from './job.actions';
import { emptyState, MOST_UNDO, type JobState, type PendingChange, type UndoStep } from './job.model';

type Stamp = { changeId: string; author: PendingChange['author']; atClient: string };

function pending(state: JobState, patch: Operation[], { changeId, author, atClient }: Stamp): PendingChange {
  const order = Math.max(0, ...state.outbox.map((c) => c.order)) + 1;
  return { id: changeId, jobId: state.id, order, patch, author, atClient };
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
    return { ...state, [from]: rest, problem: `"${step.label}" cannot be taken back: it was changed since.` };
  }
  const other = from === 'undo' ? 'redo' : 'undo';
  return {
    ...state,
    job: after,
    [from]: rest,
    [other]: [...state[other], step],
    outbox: [...state.outbox, pending(state, patch, stamp)],
    save: 'keeping',
    problem: null,
  };
}

/** Lays the waiting changes over a document that moved on; what touches the same thing becomes a conflict. */
function rebase(
  state: JobState,
  job: Job,
  revision: number,
  changes: readonly { id: string; patch: Operation[]; revision: number; author: PendingChange['author']; atClient: string }[],
): JobState {
  const arrived = new Set(changes.map((c) => c.id));
  const outbox = state.outbox.filter((c) => !arrived.has(c.id));
  const others = changes.filter((c) => !state.outbox.some((mine) => mine.id === c.id));
  const clash = outbox.find((mine) => others.some((theirs) => !disjoint(mine.patch, theirs.patch)));
  const settled: JobState = { ...state, base: job, revision, outbox };
  if (clash) return { ...settled, job, conflict: { mine: clash, theirs: others.filter((theirs) => !disjoint(clash.patch, theirs.patch)) }, save: 'here' };
  try {
    return { ...settled, job: outbox.reduce((doc, change) => applyPatch(doc, change.patch), job), conflict: null };
  } catch {
    return { ...settled, job, conflict: { mine: outbox[0], theirs: others }, save: 'here' };
  }
}

const merged = (now: readonly Evidence[], more: readonly Evidence[]): Evidence[] => {
  const byId = new Map(now.map((e) => [e.id, e]));
  for (const e of more) byId.set(e.id, e);
  return [...byId.values()];
};

export const jobFeature = createFeature({
  name: 'job',
  reducer: createReducer(
    emptyState,
    on(JobActions.open, (_s, { id }): JobState => ({ ...emptyState, id, status: 'loading' })),
    on(JobActions.close, (): JobState => emptyState),
    on(JobActions.openFailed, (s, { id, status, problem }): JobState => (s.id === id ? { ...s, status, problem } : s)),
    on(JobActions.opened, (s, { type: _type, online, ...loaded }): JobState => {
      if (s.id !== loaded.id) return s;
      const ready: JobState = {
        ...emptyState,
        ...loaded,
        base: loaded.job,
        status: 'ready',
        save: !online ? 'waiting' : loaded.outbox.length || loaded.waitingEvidence.length ? 'here' : 'server',
      };
      return { ...rebase(ready, loaded.job, loaded.revision, []), evidence: merged(loaded.evidence, loaded.waitingEvidence) };
    }),
    on(JobActions.edit, (s, { after, label, follows, ...stamp }): JobState => {
      if (!s.job) return s;
      const patch = patchBetween(s.job, after);
      if (patch.length === 0) return s;
      const next: JobState = { ...s, job: after, outbox: [...s.outbox, pending(s, patch, stamp)], save: 'keeping', problem: null };
      if (follows) return next;
      const step: UndoStep = { label, back: invertPatch(s.job, after), forth: [...guards(s.job, patch), ...patch] };
      return { ...next, undo: [...s.undo, step].slice(-MOST_UNDO), redo: [] };
    }),
    on(JobActions.undo, (s, stamp): JobState => replay(s, stamp, 'undo')),
    on(JobActions.redo, (s, stamp): JobState => replay(s, stamp, 'redo')),
    on(JobActions.kept, (s): JobState => (s.save === 'keeping' ? { ...s, save: 'here' } : s)),
    on(JobActions.saved, (s, { changeId, revision }): JobState => {
      const change = s.outbox.find((c) => c.id === changeId);
      if (!change || !s.base) return s;
      const outbox = s.outbox.filter((c) => c !== change);
      return {
        ...s,
        base: applyPatch(s.base, change.patch),
        revision,
        outbox,
        save: outbox.length || s.waitingEvidence.length ? s.save : 'server',
        problem: null,
      };
    }),
    on(JobActions.stale, (s, { job, revision, changes }): JobState => (revision < s.revision ? s : rebase(s, job, revision, changes))),
    on(JobActions.refused, (s, { changeId, problem }): JobState => {
      const outbox = s.outbox.filter((c) => c.id !== changeId);
      return { ...s, outbox, job: s.base && outbox.reduce((doc, c) => applyPatch(doc, c.patch), s.base), problem, undo: [], redo: [] };
    }),
    on(JobActions.waiting, (s, { problem }): JobState => ({ ...s, save: 'waiting', problem })),
    on(JobActions.keepMine, (s, { changeId }): JobState => {
      if (!s.conflict || !s.base) return s;
      const wanted = s.outbox.reduce((doc, c) => applyForced(doc, c.patch), s.base);
      const first = s.outbox[0];
      const patch = patchBetween(s.base, wanted);
      const outbox = patch.length ? [{ ...first, id: changeId, patch }] : [];
      return { ...s, job: wanted, outbox, conflict: null, save: 'keeping', undo: [], redo: [] };
    }),
    on(JobActions.takeTheirs, (s): JobState => ({ ...s, job: s.base, outbox: [], conflict: null, save: 'server', undo: [], redo: [] })),
    on(JobActions.record, (s, { evidence }): JobState => ({
      ...s,
      evidence: [...s.evidence, evidence],
      waitingEvidence: [...s.waitingEvidence, evidence],
      save: 'keeping',
    })),
    on(JobActions.recorded, (s, { stored }): JobState => {
      const ids = new Set(stored.map((e) => e.id));
      const waitingEvidence = s.waitingEvidence.filter((e) => !ids.has(e.id));
      return {
        ...s,
        evidence: merged(s.evidence, stored),
        waitingEvidence,
        save: waitingEvidence.length || s.outbox.length ? s.save : 'server',
        problem: null,
      };
    }),
    on(JobActions.evidenceLoaded, (s, { evidence }): JobState => ({ ...s, evidence: merged(evidence, s.waitingEvidence) })),
    on(JobActions.dismiss, (s): JobState => ({ ...s, problem: null })),
  ),
});

/** Tests that keep a repeated step from running over what came between. */
function guards(before: Job, patch: readonly Operation[]): Operation[] {
  return patch.flatMap((operation) =>
    operation.op === 'replace' || operation.op === 'remove' ? [{ op: 'test' as const, path: operation.path, value: valueAt(before, operation.path) }] : [],
  );
}

/** Lays a change over a document that it no longer fits exactly: the same places get the wanted values. */
function applyForced(document: Job, patch: readonly Operation[]): Job {
  return patch.reduce((doc, operation) => {
    if (operation.op === 'test') return doc;
    try {
      return applyPatch(doc, [operation.op === 'replace' ? { ...operation, op: 'add' } : operation]);
    } catch {
      return doc;
    }
  }, document);
}
