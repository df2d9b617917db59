import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import {
  applyPatch,
  emptyJob,
  type Adopted,
  type Evidence,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { Api, ApiError } from './api';
import { JobActions } from './job.actions';
import { JobEffects } from './job.effects';
import { emptyState, type JobState } from './job.model';
import { jobFeature } from './job.reducer';
import { Courier, NEWS_CHANNEL } from './courier';
import { SHELF } from './local-store';
import { Disk, MapShelf } from './testing/map-shelf';

const author = { name: 'A', role: '' };
const id = '11111111-1111-4111-8111-111111111111';
const job = (): Job =>
  emptyJob({
    id,
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: '',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'a'.repeat(64) },
  });
const plan = (planHash: string): Adopted => ({
  device: 'device',
  devices: {},
  wires: {},
  assignments: {},
  links: {},
  settings: {},
  retired: {},
  planHash,
  coreVersion: '0.1.0',
});
/** Waits until `what` holds, however slow the machine; a spec that waits in vain fails on what it expects next. */
async function until(what: () => boolean): Promise<void> {
  for (let tries = 0; tries < 600 && !what(); tries++)
    await new Promise((done) => setTimeout(done, 5));
}
const sent = (n: number): boolean => story.filter((s) => s.startsWith('send')).length === n;
const quiet = (): boolean => state().outbox.length === 0 && state().waitingEvidence.length === 0;

/** What happened in which order: what the browser kept, what went to the server. */
let story: string[];
let answers: (() => Promise<unknown>)[];
let disk: Disk;
let stored: Evidence[];
/** Others have brought the job to this. */
let theirsNow: (job: Job, revision: number) => void;
let store: Store;
/** How often the document was read. */
let asked: number;

function bed(): void {
  story = [];
  asked = 0;
  answers = [];
  stored = [];
  const answer = (what: string, usual: () => unknown): Promise<unknown> => {
    story.push(what);
    return answers.length
      ? (answers.shift() as () => Promise<unknown>)()
      : Promise.resolve(usual());
  };
  let at = { job: job(), revision: 7 };
  const api: Partial<Record<keyof Api, unknown>> = {
    job: () => {
      asked++;
      return Promise.resolve({ ...at, archived: false });
    },
    evidence: () => Promise.resolve(stored),
    profile: () => Promise.resolve({}),
    changesAfter: () => Promise.resolve([]),
    change: (_id: string, c: { base: number; patch: Operation[] }) =>
      answer(`send on ${c.base}`, () => {
        at = { job: applyPatch(at.job, c.patch), revision: c.base + 1 };
        return { revision: at.revision };
      }),
    addEvidence: (_id: string, list: Evidence[]) =>
      answer(`evidence ${list.map((e) => e.id).join()}`, () => {
        stored = [...stored, ...list];
        return list;
      }),
  };
  disk = new Disk();
  disk.written = (acts) => {
    const put = acts.flatMap((act) =>
      'put' in act && ['outbox', 'evidence'].includes(act.put) ? [act.put] : [],
    );
    if (put.length) story.push(`keep ${put.join('+')}`);
  };
  theirsNow = (job, revision) => void (at = { job, revision });
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      { provide: Api, useValue: api },
      { provide: SHELF, useFactory: () => new MapShelf(disk) },
      { provide: NEWS_CHANNEL, useValue: null },
      provideStore(
        { [jobFeature.name]: jobFeature.reducer },
        { initialState: { [jobFeature.name]: emptyState } },
      ),
      provideEffects(JobEffects),
    ],
  });
  store = TestBed.inject(Store);
  (window as unknown as { EventSource: unknown }).EventSource = undefined;
}

const state = (): JobState => {
  let now = emptyState;
  store
    .select(jobFeature.selectJobState)
    .subscribe((s) => (now = s))
    .unsubscribe();
  return now;
};
const edit = (change: Partial<Job>, changeId: string): void =>
  store.dispatch(
    JobActions.edit({
      after: { ...(state().job as Job), ...change },
      label: 'x',
      changeId,
      author,
      atClient: '2026-01-01T00:00:00Z',
    }),
  );

describe('saving', () => {
  const real = EventSource;
  beforeEach(async () => {
    bed();
    store.dispatch(JobActions.open({ id }));
    await until(() => state().status === 'ready');
  });
  afterEach(() => {
    store.dispatch(JobActions.close());
    TestBed.inject(Courier).rest();
    (window as unknown as { EventSource: unknown }).EventSource = real;
  });

  it('keeps a change in the browser before it goes to the server', async () => {
    edit({ tag: 'T-2' }, 'c1');
    await until(quiet);
    expect(story.slice(0, 2)).toEqual(['keep outbox', 'send on 7']);
    expect([state().save, state().revision, state().outbox.length]).toEqual(['server', 8, 0]);
  });

  it('sends changes one after the other, each on the revision the one before made', async () => {
    edit({ tag: 'T-2' }, 'c1');
    edit({ tag: 'T-3' }, 'c2');
    edit({ tag: 'T-4' }, 'c3');
    await until(quiet);
    expect(story.filter((s) => s.startsWith('send'))).toEqual([
      'send on 7',
      'send on 8',
      'send on 9',
    ]);
    expect([state().job?.tag, state().base?.tag, state().save]).toEqual(['T-4', 'T-4', 'server']);
  });

  it('says that it waits when the server is gone, keeps the change, and sends it again', async () => {
    answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'T-2' }, 'c1');
    await until(() => state().save === 'waiting');
    expect([state().save, state().outbox.length, state().job?.tag]).toEqual(['waiting', 1, 'T-2']);
    await until(quiet);
    expect([
      state().save,
      state().outbox.length,
      story.filter((s) => s.startsWith('send')).length,
    ]).toEqual(['server', 0, 2]);
  });

  it('lays its change over what came from elsewhere, and sends it on the new revision', async () => {
    const theirs = { ...job(), machine: 'theirs' };
    const changes = [
      {
        id: 't',
        revision: 8,
        patch: [{ op: 'replace', path: '/machine', value: 'theirs' }],
        author,
        atClient: '',
      },
    ];
    theirsNow(theirs, 8);
    answers.push(() =>
      Promise.reject(new ApiError(412, 'changed elsewhere', { job: theirs, revision: 8, changes })),
    );
    edit({ tag: 'T-2' }, 'c1');
    await until(() => sent(2) && quiet());
    expect(story.filter((s) => s.startsWith('send'))).toEqual(['send on 7', 'send on 8']);
    expect([state().job?.tag, state().job?.machine]).toEqual(['T-2', 'theirs']);
  });

  it('opens what is kept when the server is gone, with everything that waits, and sends it in order when it is back', async () => {
    answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'T-2' }, 'c1');
    edit({ machine: 'grader' }, 'c2');
    store.dispatch(JobActions.record({ evidence: { id: 'e1', kind: 'keyed' } as Evidence }));
    await until(() => state().save === 'waiting');
    store.dispatch(JobActions.close());
    store.dispatch(JobActions.open({ id }));
    await until(() => state().status === 'ready');
    expect([state().job?.tag, state().job?.machine, state().evidence.map((e) => e.id)]).toEqual([
      'T-2',
      'grader',
      ['e1'],
    ]);
    await until(quiet);
    expect(story.filter((s) => !s.startsWith('keep'))).toEqual([
      'send on 7',
      'send on 7',
      'send on 8',
      'evidence e1',
    ]);
    expect(state().save).toBe('server');
  });

  it('asks about the same field also when it was typed before the window was closed', async () => {
    answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'mine' }, 'c1');
    await until(() => state().save === 'waiting');
    store.dispatch(JobActions.close());
    const theirs = { ...job(), tag: 'theirs' };
    theirsNow(theirs, 8);
    const changes = [
      {
        id: 't',
        revision: 8,
        patch: [{ op: 'replace', path: '/tag', value: 'theirs' }],
        author,
        atClient: '',
      },
    ];
    answers.push(() =>
      Promise.reject(new ApiError(412, 'changed elsewhere', { job: theirs, revision: 8, changes })),
    );
    store.dispatch(JobActions.open({ id }));
    await until(() => state().conflict !== null);
    expect([state().conflict?.mine.patch[0], state().job?.tag]).toEqual([
      jasmine.objectContaining({ value: 'mine' }),
      'theirs',
    ]);
    store.dispatch(JobActions.close());
    store.dispatch(JobActions.open({ id }));
    await until(() => state().conflict !== null);
    store.dispatch(JobActions.keepMine({ waiting: state().outbox.map((c) => c.id) }));
    await until(quiet);
    expect([state().job?.tag, state().revision, state().conflict]).toEqual(['mine', 9, null]);
  });

  it('says where the browser has no room that it is in this window alone, keeps typing, and sends it all the same', async () => {
    (TestBed.inject(SHELF) as MapShelf).full = true;
    for (let i = 0; i < 3; i++)
      answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'T-2' }, 'c1');
    await until(() => state().save === 'unkept');
    edit({ machine: 'grader' }, 'c2');
    await until(() => state().save === 'unkept');
    await new Promise((done) => setTimeout(done, 50));
    expect([state().save, state().job?.tag, state().job?.machine, state().outbox.length]).toEqual([
      'unkept',
      'T-2',
      'grader',
      2,
    ]);
    edit({}, 'nothing');
    await new Promise((done) => setTimeout(done, 50));
    expect(state().save).toBe('unkept');
    answers.length = 0;
    void TestBed.inject(Courier).run();
    await until(quiet);
    expect([state().save, state().base?.tag, state().base?.machine]).toEqual([
      'server',
      'T-2',
      'grader',
    ]);
  });

  it('takes a refused change back and says why', async () => {
    answers.push(() => Promise.reject(new ApiError(400, 'Does not fit at "tag": a tag.')));
    edit({ tag: '' }, 'c1');
    await until(() => state().problem !== null);
    expect([state().job?.tag, state().outbox.length, state().problem]).toEqual([
      'T-1',
      0,
      'Does not fit at "tag": a tag.',
    ]);
  });

  it('sends evidence after the changes it rests on', async () => {
    edit({ tag: 'T-2' }, 'c1');
    store.dispatch(JobActions.record({ evidence: { id: 'e1', kind: 'keyed' } as Evidence }));
    await until(quiet);
    expect(story.filter((s) => !s.startsWith('keep'))).toEqual(['send on 7', 'evidence e1']);
    expect(state().waitingEvidence).toEqual([]);
  });

  it('puts back what the window holds when the browser deletes its store under it, and goes on sending', async () => {
    answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'T-2' }, 'c1');
    await until(() => state().save === 'waiting');
    disk.rows.clear();
    TestBed.inject(SHELF).onDeleted();
    await until(quiet);
    expect([state().base?.tag, state().save, sent(2)]).toEqual(['T-2', 'server', true]);
    expect(disk.of('base').has(id)).toBeTrue();
    edit({ tag: 'T-3' }, 'c2');
    await until(quiet);
    expect(state().base?.tag).toBe('T-3');
  });

  it('reads the document anew where something waits and none is kept, and asks no more than it must', async () => {
    answers.push(() => Promise.reject(new ApiError(0, 'The server does not answer.')));
    edit({ tag: 'T-2' }, 'c1');
    await until(() => state().save === 'waiting');
    disk.of('base').clear();
    await TestBed.inject(Courier).run();
    await until(quiet);
    await new Promise((done) => setTimeout(done, 100));
    expect([state().base?.tag, story.filter((s) => s.startsWith('send')).length]).toEqual([
      'T-2',
      2,
    ]);
    expect(asked).toBeLessThan(8);
  });

  it('takes what went in beside the changes of others, and theirs with it', async () => {
    const patch = [{ op: 'replace' as const, path: '/machine', value: 'theirs' }];
    answers.push(() => {
      theirsNow({ ...job(), tag: 'T-2', machine: 'theirs' }, 9);
      const since = [{ id: 't', revision: 8, patch, author, atClient: '' }];
      return Promise.resolve({ revision: 9, since });
    });
    edit({ tag: 'T-2' }, 'c1');
    edit({ practice: 'NFPA' }, 'c2');
    await until(quiet);
    expect([state().job?.tag, state().job?.machine, state().job?.practice]).toEqual([
      'T-2',
      'theirs',
      'NFPA',
    ]);
    expect(story.filter((s) => s.startsWith('send'))).toEqual(['send on 7', 'send on 9']);
  });

  it('asks about what waits when thousands of changes lie between, and overwrites nothing', async () => {
    theirsNow({ ...job(), machine: 'theirs' }, 9000);
    answers.push(() =>
      Promise.reject(new ApiError(412, 'stale', { revision: 9000, tooFar: true, behind: 8993 })),
    );
    edit({ tag: 'T-2' }, 'c1');
    await until(() => state().conflict !== null);
    expect([state().conflict?.why, state().revision, state().job?.machine]).toEqual([
      'thousands of changes were made elsewhere since',
      9000,
      'theirs',
    ]);
  });

  it('whose plan another has replaced goes in without it: the wish of both stands, and the plan of both is asked for', async () => {
    const theirs: Job = { ...job(), practice: 'NFPA', adopted: plan('theirs') };
    theirsNow(theirs, 8);
    const changes = [
      {
        id: 't',
        revision: 8,
        patch: [
          { op: 'replace' as const, path: '/practice', value: 'NFPA' },
          { op: 'add' as const, path: '/adopted', value: plan('theirs') },
        ],
        author,
        atClient: '',
      },
    ];
    answers.push(() => Promise.reject(new ApiError(412, 'stale', { revision: 8, changes })));
    edit({ machine: 'grader', adopted: plan('mine') }, 'c1');
    await until(() => sent(2) && quiet());
    expect([
      state().conflict,
      state().job?.machine,
      state().job?.practice,
      state().job?.adopted?.planHash,
      state().replan,
    ]).toEqual([null, 'grader', 'NFPA', 'theirs', true]);
  });
});
