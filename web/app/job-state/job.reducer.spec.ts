import { applyPatch, disjoint, emptyJob, type Evidence, type Job, type Operation } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import { JobActions } from './job.actions';
import type { JobState, ServerChange } from './job.model';
import { jobFeature } from './job.reducer';

const author = { name: 'A', role: '' };
const base = (): Job => ({
  ...emptyJob({
    id: '11111111-1111-4111-8111-111111111111',
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: 'mill',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'a'.repeat(64) },
  }),
});
let serial = 0;
const stamp = () => ({ changeId: `c${++serial}`, author, atClient: '2026-01-01T00:00:00Z' });
const reduce = (s: JobState, ...actions: Parameters<typeof jobFeature.reducer>[1][]): JobState =>
  actions.reduce((state, action) => jobFeature.reducer(state, action), s);

function opened(job = base(), revision = 3): JobState {
  const id = job.id;
  const start = jobFeature.reducer(undefined, JobActions.open({ id }));
  return reduce(
    start,
    JobActions.opened({
      id,
      job,
      revision,
      archived: false,
      profile: {} as Profile,
      evidence: [],
      waitingEvidence: [],
      outbox: [],
      undo: [],
      redo: [],
      online: true,
    }),
  );
}
const edit = (s: JobState, recipe: (draft: Job) => void, label = 'edit'): JobState => {
  const after = structuredClone(s.job as Job);
  recipe(after);
  return reduce(s, JobActions.edit({ after, label, ...stamp() }));
};
const theirs = (revision: number, patch: Operation[]): ServerChange => ({ id: `t${revision}`, revision, patch, author: { name: 'B', role: '' }, atClient: '' });

describe('job state', () => {
  it('keeps an edit here, then on the server', () => {
    let s = edit(opened(), (d) => (d.tag = 'T-2'));
    expect([s.save, s.outbox.length, s.revision]).toEqual(['keeping', 1, 3]);
    s = reduce(s, JobActions.kept());
    expect(s.save).toBe('here');
    s = reduce(s, JobActions.saved({ changeId: s.outbox[0].id, revision: 4 }));
    expect([s.save, s.outbox.length, s.revision, s.base?.tag, s.job?.tag]).toEqual(['server', 0, 4, 'T-2', 'T-2']);
  });

  it('does nothing for an edit that changes nothing', () => {
    const s = opened();
    expect(edit(s, () => undefined)).toBe(s);
  });

  it('undoes and redoes, and offers no redo after a new edit', () => {
    let s = edit(opened(), (d) => (d.scheme.maxHz = 45));
    s = edit(s, (d) => (d.scheme.maxHz = 40));
    s = reduce(s, JobActions.undo(stamp()));
    expect(s.job?.scheme.maxHz).toBe(45);
    s = reduce(s, JobActions.redo(stamp()));
    expect(s.job?.scheme.maxHz).toBe(40);
    s = reduce(s, JobActions.undo(stamp()), JobActions.undo(stamp()));
    expect(s.job?.scheme.maxHz).toBeUndefined();
    s = edit(s, (d) => (d.tag = 'X'));
    expect(s.redo).toEqual([]);
  });

  it('refuses to take back what somebody else changed since, and says so', () => {
    let s = edit(opened(), (d) => (d.tag = 'mine'));
    s = reduce(s, JobActions.saved({ changeId: s.outbox[0].id, revision: 4 }));
    const job = { ...(s.job as Job), tag: 'theirs' };
    s = reduce(s, JobActions.stale({ job, revision: 5, changes: [theirs(5, [{ op: 'replace', path: '/tag', value: 'theirs' }])] }), JobActions.undo(stamp()));
    expect(s.job?.tag).toBe('theirs');
    expect(s.problem).toMatch(/changed since/u);
  });

  it('merges disjoint changes of another person', () => {
    let s = edit(opened(), (d) => (d.machine = 'grader'));
    const job = { ...base(), tag: 'T-9' };
    s = reduce(s, JobActions.stale({ job, revision: 4, changes: [theirs(4, [{ op: 'replace', path: '/tag', value: 'T-9' }])] }));
    expect([s.job?.tag, s.job?.machine, s.conflict, s.revision, s.outbox.length]).toEqual(['T-9', 'grader', null, 4, 1]);
  });

  it('never overwrites the same field in silence: both values are shown, and either can stand', () => {
    let s = edit(opened(), (d) => (d.tag = 'mine'));
    const job = { ...base(), tag: 'theirs' };
    s = reduce(s, JobActions.stale({ job, revision: 4, changes: [theirs(4, [{ op: 'replace', path: '/tag', value: 'theirs' }])] }));
    expect([s.conflict?.mine.patch[0], s.conflict?.theirs[0].author.name, s.job?.tag]).toEqual([jasmine.objectContaining({ value: 'mine' }), 'B', 'theirs']);
    const mine = reduce(s, JobActions.keepMine({ changeId: 'k' }));
    expect([mine.job?.tag, mine.conflict, applyPatch(mine.base as Job, mine.outbox[0].patch).tag]).toEqual(['mine', null, 'mine']);
    const gone = reduce(s, JobActions.takeTheirs());
    expect([gone.job?.tag, gone.outbox.length, gone.save]).toEqual(['theirs', 0, 'server']);
  });

  it('knows its own change when the answer to it was lost', () => {
    let s = edit(opened(), (d) => (d.tag = 'mine'));
    const [own] = s.outbox;
    const job = { ...base(), tag: 'mine' };
    s = reduce(s, JobActions.stale({ job, revision: 4, changes: [{ ...theirs(4, own.patch), id: own.id }] }));
    expect([s.job?.tag, s.outbox.length, s.conflict]).toEqual(['mine', 0, null]);
  });

  it('takes a refused change back and says why', () => {
    let s = edit(opened(), (d) => (d.tag = ''));
    s = reduce(s, JobActions.refused({ changeId: s.outbox[0].id, problem: 'a tag' }));
    expect([s.job?.tag, s.outbox.length, s.problem]).toEqual(['T-1', 0, 'a tag']);
  });

  it('never loses evidence, and never shows a piece twice', () => {
    const evidence = { id: 'e1', kind: 'keyed' } as Evidence;
    let s = reduce(opened(), JobActions.record({ evidence }));
    expect([s.evidence.length, s.waitingEvidence.length, s.save]).toEqual([1, 1, 'keeping']);
    s = reduce(s, JobActions.evidenceLoaded({ evidence: [] }));
    expect(s.evidence.length).toBe(1);
    s = reduce(s, JobActions.recorded({ stored: [{ ...evidence, hash: 'h' }] }), JobActions.evidenceLoaded({ evidence: [{ ...evidence, hash: 'h' }] }));
    expect([s.evidence.length, s.evidence[0].hash, s.waitingEvidence.length, s.save]).toEqual([1, 'h', 0, 'server']);
  });

  it('ends with the same document in two windows after random edits in any order of arrival', () => {
    const fields = ['tag', 'machine'] as const;
    for (let seed = 1; seed <= 60; seed++) {
      let random = seed * 7919;
      const next = (n: number): number => (random = (random * 48271) % 2147483647) % n;
      let server = { job: base(), revision: 0, changes: [] as ServerChange[] };
      const windows = [opened(base(), 0), opened(base(), 0)];
      const send = (i: number): void => {
        const [change] = windows[i].outbox;
        if (!change || windows[i].conflict) return;
        const known = server.changes.find((c) => c.id === change.id);
        const fits = windows[i].revision === server.revision;
        if (!known && fits) {
          const revision = server.revision + 1;
          server = { job: applyPatch(server.job, change.patch), revision, changes: [...server.changes, { ...change, revision }] };
        }
        if (next(4) === 0) return; // the answer is lost
        if (known || fits) windows[i] = reduce(windows[i], JobActions.saved({ changeId: change.id, revision: known?.revision ?? server.revision }));
        else
          windows[i] = reduce(
            windows[i],
            JobActions.stale({ job: server.job, revision: server.revision, changes: server.changes.filter((c) => c.revision > windows[i].revision) }),
          );
      };
      for (let step = 0; step < 40; step++) {
        const i = next(2);
        if (windows[i].conflict) windows[i] = reduce(windows[i], next(2) ? JobActions.keepMine({ changeId: `k${seed}.${step}` }) : JobActions.takeTheirs());
        else if (next(3) === 0) send(i);
        else if (next(5) === 0) windows[i] = reduce(windows[i], JobActions.undo({ changeId: `u${seed}.${step}`, author, atClient: '' }));
        else windows[i] = edit(windows[i], (d) => (d[fields[next(2)]] = `v${seed}.${step}`));
      }
      for (let round = 0; round < 200 && windows.some((w) => w.outbox.length || w.conflict || w.revision !== server.revision); round++) {
        for (const i of [0, 1]) {
          if (windows[i].conflict) windows[i] = reduce(windows[i], JobActions.keepMine({ changeId: `z${seed}.${round}.${i}` }));
          else if (windows[i].outbox.length) send(i);
          else
            windows[i] = reduce(
              windows[i],
              JobActions.stale({ job: server.job, revision: server.revision, changes: server.changes.filter((c) => c.revision > windows[i].revision) }),
            );
        }
      }
      expect(windows.map((w) => [w.outbox.length, w.revision, w.job?.tag, w.job?.machine]))
        .withContext(`seed ${seed}`)
        .toEqual([0, 1].map(() => [0, server.revision, server.job.tag, server.job.machine]));
      expect(new Set(server.changes.map((c) => c.id)).size).toBe(server.changes.length);
    }
    expect(disjoint([{ op: 'replace', path: '/tag', value: 1 }], [{ op: 'replace', path: '/machine', value: 1 }])).toBeTrue();
  });
});

describe('a plan that follows from an edit', () => {
  it('is no step of its own: taking the edit back leaves redo as it was', () => {
    let s = edit(opened(), (d) => (d.scheme.maxHz = 45));
    const after = { ...(s.job as Job), machine: 'replanned' };
    s = reduce(s, JobActions.edit({ after, label: 'plan adopted', follows: true, ...stamp() }));
    expect(s.undo.length).toBe(1);
    s = reduce(s, JobActions.undo(stamp()));
    expect([s.job?.scheme.maxHz, s.redo.length]).toEqual([undefined, 1]);
    s = reduce(s, JobActions.edit({ after: { ...(s.job as Job), machine: 'again' }, label: 'plan adopted', follows: true, ...stamp() }));
    expect(s.redo.length).toBe(1);
  });
});
