import { applyPatch, emptyJob, type Evidence, type Job, type Operation } from '@tactron/core/job';
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
      conflict: null,
      made: false,
      online: true,
    }),
  );
}
const edit = (s: JobState, recipe: (draft: Job) => void, label = 'edit'): JobState => {
  const after = structuredClone(s.job as Job);
  recipe(after);
  return reduce(s, JobActions.edit({ after, label, ...stamp() }));
};
/** The server has taken the first waiting change, on top of what it had. */
const arrived = (s: JobState, revision: number): JobState => {
  const [change] = s.outbox;
  return reduce(
    s,
    JobActions.saved({
      change: { ...change, revision },
      job: applyPatch(s.base as Job, change.patch),
    }),
  );
};
const waitingIn = (s: JobState): { waiting: string[] } => ({ waiting: s.outbox.map((c) => c.id) });
const theirs = (revision: number, patch: Operation[]): ServerChange => ({
  id: `t${revision}`,
  revision,
  patch,
  author: { name: 'B', role: '' },
  atClient: '',
});

describe('job state', () => {
  it('keeps an edit here, then on the server', () => {
    let s = edit(opened(), (d) => (d.tag = 'T-2'));
    expect([s.save, s.outbox.length, s.revision]).toEqual(['keeping', 1, 3]);
    s = reduce(s, JobActions.kept({ inBrowser: true }));
    expect(s.save).toBe('here');
    s = arrived(s, 4);
    expect([s.save, s.outbox.length, s.revision, s.base?.tag, s.job?.tag]).toEqual([
      'server',
      0,
      4,
      'T-2',
      'T-2',
    ]);
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
    s = arrived(s, 4);
    const job = { ...(s.job as Job), tag: 'theirs' };
    s = reduce(
      s,
      JobActions.stale({
        job,
        revision: 5,
        changes: [theirs(5, [{ op: 'replace', path: '/tag', value: 'theirs' }])],
      }),
      JobActions.undo(stamp()),
    );
    expect(s.job?.tag).toBe('theirs');
    expect(s.problem).toMatch(/changed since/u);
  });

  it('merges disjoint changes of another person', () => {
    let s = edit(opened(), (d) => (d.machine = 'grader'));
    const job = { ...base(), tag: 'T-9' };
    s = reduce(
      s,
      JobActions.stale({
        job,
        revision: 4,
        changes: [theirs(4, [{ op: 'replace', path: '/tag', value: 'T-9' }])],
      }),
    );
    expect([s.job?.tag, s.job?.machine, s.conflict, s.revision, s.outbox.length]).toEqual([
      'T-9',
      'grader',
      null,
      4,
      1,
    ]);
  });

  it('never overwrites the same field in silence: both values are shown, and either can stand', () => {
    let s = edit(opened(), (d) => (d.tag = 'mine'));
    const job = { ...base(), tag: 'theirs' };
    s = reduce(
      s,
      JobActions.stale({
        job,
        revision: 4,
        changes: [theirs(4, [{ op: 'replace', path: '/tag', value: 'theirs' }])],
      }),
    );
    expect([s.conflict?.mine.patch[0], s.conflict?.theirs[0].author.name, s.job?.tag]).toEqual([
      jasmine.objectContaining({ value: 'mine' }),
      'B',
      'theirs',
    ]);
    const mine = reduce(s, JobActions.keepMine(waitingIn(s)));
    expect([
      mine.job?.tag,
      mine.conflict,
      applyPatch(mine.base as Job, mine.outbox[0].patch).tag,
    ]).toEqual(['mine', null, 'mine']);
    const gone = reduce(s, JobActions.takeTheirs(waitingIn(s)));
    expect([gone.job?.tag, gone.outbox.length, gone.save]).toEqual(['theirs', 0, 'server']);
  });

  it('knows its own change when the answer to it was lost', () => {
    let s = edit(opened(), (d) => (d.tag = 'mine'));
    const [own] = s.outbox;
    const job = { ...base(), tag: 'mine' };
    s = reduce(
      s,
      JobActions.stale({ job, revision: 4, changes: [{ ...theirs(4, own.patch), id: own.id }] }),
    );
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
    s = reduce(
      s,
      JobActions.recorded({ stored: [{ ...evidence, hash: 'h' }] }),
      JobActions.evidenceLoaded({ evidence: [{ ...evidence, hash: 'h' }] }),
    );
    expect([s.evidence.length, s.evidence[0].hash, s.waitingEvidence.length, s.save]).toEqual([
      1,
      'h',
      0,
      'server',
    ]);
  });

  it('asks about the one change that touches what others touched, and keeps every other', () => {
    let s = edit(opened(), (d) => (d.machine = 'grader'));
    s = edit(s, (d) => (d.tag = 'mine'));
    s = edit(s, (d) => (d.scheme.maxHz = 45));
    const job = { ...base(), tag: 'theirs' };
    s = reduce(
      s,
      JobActions.stale({
        job,
        revision: 4,
        changes: [theirs(4, [{ op: 'replace', path: '/tag', value: 'theirs' }])],
      }),
    );
    expect(s.conflict?.mine.patch[0]).toEqual(jasmine.objectContaining({ value: 'mine' }));
    const gone = reduce(s, JobActions.takeTheirs(waitingIn(s)));
    expect([
      gone.job?.tag,
      gone.job?.machine,
      gone.job?.scheme.maxHz,
      gone.outbox.length,
      gone.conflict,
    ]).toEqual(['theirs', 'grader', 45, 2, null]);
    const kept = reduce(s, JobActions.keepMine(waitingIn(s)));
    expect([
      kept.job?.tag,
      kept.job?.machine,
      kept.job?.scheme.maxHz,
      kept.outbox.length,
      kept.conflict,
    ]).toEqual(['mine', 'grader', 45, 3, null]);
  });

  it('says why two disjoint changes cannot stand together, and offers to take back its own', () => {
    const wire = {
      number: '1',
      from: 'a:1',
      to: 'b:1',
      function: 'x',
      size: { mm2: 1 },
      colour: 'blue',
      lengthM: 1,
      potential: 'x',
      class: 'controlDc' as const,
      origin: 'plan' as const,
    };
    const device = { kind: 'relay', role: 'a', tag: 'K1', params: {} };
    const wired = {
      ...base(),
      adopted: {
        device: 'b',
        devices: { a: device, b: { ...device, role: 'b' } },
        wires: {},
        assignments: {},
        links: {},
        settings: {},
        retired: {},
        planHash: 'h',
        coreVersion: '1',
      },
    };
    let s = edit(
      opened(wired as never),
      (d) => delete (d.adopted as { devices: Record<string, unknown> }).devices['a'],
    );
    const patch: Operation[] = [{ op: 'add', path: '/adopted/wires/w', value: wire }];
    s = reduce(
      s,
      JobActions.stale({
        job: applyPatch(wired, patch) as never,
        revision: 4,
        changes: [theirs(4, patch)],
      }),
    );
    expect(s.conflict?.why).toContain('a device that is not there');
    expect([s.conflict?.theirs[0].author.name, Object.keys(s.job?.adopted?.devices ?? {})]).toEqual(
      ['B', ['a', 'b']] as never,
    );
    s = reduce(s, JobActions.takeTheirs(waitingIn(s)));
    expect([s.conflict, s.outbox.length, Object.keys(s.job?.adopted?.wires ?? {})]).toEqual([
      null,
      0,
      ['w'],
    ] as never);
  });

  it('hears of a change that another window of this browser has sent', () => {
    let s = edit(opened(), (d) => (d.machine = 'grader'));
    s = reduce(
      s,
      JobActions.saved({
        change: theirs(4, [{ op: 'replace', path: '/tag', value: 'other window' }]),
        job: { ...base(), tag: 'other window' },
      }),
    );
    expect([s.job?.tag, s.job?.machine, s.revision, s.outbox.length]).toEqual([
      'other window',
      'grader',
      4,
      1,
    ]);
  });

  it('never says that it is kept before the browser has it, whatever the server says meanwhile', () => {
    let s = reduce(
      edit(opened(), (d) => (d.machine = 'grader')),
      JobActions.waiting({ problem: 'The server does not answer.' }),
    );
    expect(s.save).toBe('keeping');
    s = reduce(
      s,
      JobActions.kept({ inBrowser: true }),
      JobActions.waiting({ problem: 'The server does not answer.' }),
    );
    expect(s.save).toBe('waiting');
  });

  it('says that it is in this window alone where the browser has no room', () => {
    let s = reduce(
      edit(opened(), (d) => (d.machine = 'grader')),
      JobActions.kept({ inBrowser: false }),
    );
    expect([s.save, s.job?.machine]).toEqual(['unkept', 'grader']);
    s = arrived(s, 4);
    expect(s.save).toBe('server');
  });
});

describe('a plan that follows from an edit', () => {
  it('is taken back and done again with it, in one step and one change', () => {
    const plan = { planHash: 'h' } as never;
    let s = edit(opened(), (d) => {
      d.scheme.maxHz = 45;
      d.adopted = plan;
    });
    expect([s.undo.length, s.outbox.length]).toEqual([1, 1]);
    s = reduce(s, JobActions.undo(stamp()));
    expect([s.job?.scheme.maxHz, s.job?.adopted]).toEqual([undefined, undefined]);
    s = reduce(s, JobActions.redo(stamp()));
    expect([s.job?.scheme.maxHz, s.job?.adopted]).toEqual([45, plan]);
  });

  it('stays one step to take back when news of an own change comes after its answer', () => {
    const [one, two] = [{ planHash: '1' }, { planHash: '2' }] as never[];
    let s = edit(opened(), (d) => {
      d.scheme.maxHz = 45;
      d.adopted = one;
    });
    const [first] = s.outbox;
    s = arrived(s, 4);
    s = edit(s, (d) => {
      d.scheme.maxHz = 40;
      d.adopted = two;
    });
    // What was asked for before the answer tells of the own change as if it were somebody's.
    const news = { ...theirs(4, first.patch), id: first.id };
    s = reduce(s, JobActions.stale({ job: s.base as Job, revision: 4, changes: [news] }));
    expect([s.undo.length, s.conflict, s.replan, s.outbox.length]).toEqual([2, null, false, 1]);
    s = reduce(s, JobActions.undo(stamp()), JobActions.undo(stamp()));
    expect([s.job?.scheme.maxHz, s.job?.adopted]).toEqual([undefined, undefined]);
  });
});
