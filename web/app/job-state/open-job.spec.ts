import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { provideStore, Store } from '@ngrx/store';
import type { Profile } from '@tactron/core/catalogue';
import { emptyJob, type Adopted, type Job } from '@tactron/core/job';
import { Compute } from '../compute/compute';
import { Preferences } from '../frame/preferences';
import { JobActions } from './job.actions';
import { emptyState, type JobState } from './job.model';
import { jobFeature } from './job.reducer';
import { Keeping } from './keeping';
import { OpenJob } from './open-job';

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
const plan = { planHash: 'h', wires: {} } as unknown as Adopted;

describe('a change', () => {
  let store: Store;
  let open: OpenJob;
  /** What planning answers, when it is let. */
  let plans: ((answer: Adopted | null | Error) => void)[];
  let asked: Job[];
  let derived: Job[];

  const state = (): JobState => TestBed.inject(OpenJob).state();
  const settled = (): Promise<void> => new Promise((done) => setTimeout(done, 5));

  function bed(me: unknown, author: unknown): void {
    plans = [];
    asked = [];
    derived = [];
    const compute = {
      follows: (after: Job) => {
        asked.push(after);
        return new Promise((done, fail) =>
          plans.push((answer) => (answer instanceof Error ? fail(answer) : done(answer))),
        );
      },
      derive: (now: Job) => {
        derived.push(now);
        return Promise.resolve({ names: {} });
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(
          { [jobFeature.name]: jobFeature.reducer },
          { initialState: { [jobFeature.name]: emptyState } },
        ),
        { provide: Compute, useValue: compute },
        { provide: Preferences, useValue: { author: signal(author) } },
        { provide: MatDialog, useValue: { open: () => fail('nobody is asked for') } },
        { provide: Keeping, useValue: { readOnly: signal(false), me: signal(me) } },
      ],
    });
    store = TestBed.inject(Store);
    open = TestBed.inject(OpenJob);
    store.dispatch(JobActions.open({ id }));
    const nothing = { evidence: [], waitingEvidence: [], outbox: [], undo: [], redo: [] };
    store.dispatch(
      JobActions.opened({
        ...nothing,
        id,
        job: job(),
        revision: 1,
        archived: false,
        profile: {} as Profile,
        conflict: null,
        made: false,
        online: true,
      }),
    );
  }

  it('and the plan it makes are one step and one change, reckoned once; undone together', async () => {
    bed(null, { name: 'A', role: '' });
    TestBed.tick();
    await settled();
    derived.length = 0;
    open.edit('highest frequency', (d) => void (d.scheme.maxHz = 45));
    await settled();
    expect([asked[0].scheme.maxHz, state().job?.scheme.maxHz]).toEqual([45, undefined]);
    plans[0](plan);
    await settled();
    TestBed.tick();
    await settled();
    expect([state().job?.scheme.maxHz, state().job?.adopted]).toEqual([45, plan]);
    expect([state().outbox.length, state().undo.length, derived.length]).toEqual([1, 1, 1]);
    open.undo();
    await settled();
    expect([state().job?.scheme.maxHz, state().job?.adopted]).toEqual([undefined, undefined]);
  });

  it('adopts for somebody who is signed in and never typed a name', async () => {
    bed({ accounts: true, name: 'S. Igned', trade: 'electrician' }, null);
    open.edit('highest frequency', (d) => void (d.scheme.maxHz = 45));
    await settled();
    plans[0](plan);
    await settled();
    expect([state().job?.adopted, state().outbox[0].author.name]).toEqual([plan, 'S. Igned']);
  });

  it('is made on what is there when its plan comes: what came meanwhile stays', async () => {
    bed(null, { name: 'A', role: '' });
    open.edit('highest frequency', (d) => void (d.scheme.maxHz = 45));
    await settled();
    const theirs = { ...job(), machine: 'grader' };
    store.dispatch(JobActions.stale({ job: theirs, revision: 2, changes: [] as never }));
    plans[0](plan);
    await settled();
    expect([asked.length, state().job?.scheme.maxHz]).toEqual([2, undefined]);
    plans[1](plan);
    await settled();
    expect([state().job?.machine, state().job?.scheme.maxHz, state().job?.adopted]).toEqual([
      'grader',
      45,
      plan,
    ]);
  });

  it('is kept in order and without a plan where planning stops, and waits for none where it plans nothing', async () => {
    bed(null, { name: 'A', role: '' });
    open.edit('one', (d) => void (d.scheme.maxHz = 45));
    open.edit('two', (d) => void (d.machine = 'grader'));
    await settled();
    expect(state().outbox).toEqual([]);
    plans[0](new Error('stopped'));
    await settled();
    expect(state().outbox.map((c) => c.label)).toEqual(['one', 'two']);
    expect(asked.length).toBe(1);
  });

  it('that empties a field takes it out of the job, so that the server can keep it', async () => {
    bed(null, { name: 'A', role: '' });
    open.edit('wish', (d) => void (d.scheme.startWarningS = 5));
    await settled();
    plans[0](null);
    await settled();
    open.edit('emptied', (d) => void (d.scheme.startWarningS = undefined));
    await settled();
    plans[1](null);
    await settled();
    expect('startWarningS' in (state().job?.scheme ?? {})).toBeFalse();
    expect(state().outbox[1].patch).toEqual([{ op: 'remove', path: '/scheme/startWarningS' }]);
  });

  it('that fails is told, and the next one is made all the same', async () => {
    bed(null, { name: 'A', role: '' });
    open.edit('broken', () => {
      throw new Error('no such wire');
    });
    open.edit('good', (d) => void (d.machine = 'grader'));
    await settled();
    expect(state().job?.machine).toBe('grader');
  });
});
