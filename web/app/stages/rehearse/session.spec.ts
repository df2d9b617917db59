import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Profile } from '@tactron/core/catalogue';
import type { Act, Job } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import { RehearsalSession } from './session';

type Timed = { t: number; act: Act };

const trace = {
  endUs: 1e9,
  signals: [],
  segments: [],
  instants: { t: [], solution: [] },
  solutions: [],
  events: [],
};

/** A worker whose answers come when the test lets them. */
class SlowWorker {
  log: Timed[] = [];
  readonly waiting: (() => void)[] = [];

  open(_job: Job, _profile: Profile, _from: unknown, log: Timed[]) {
    this.log = [...log];
    return this.answer();
  }
  act(seq: number, t: number, acts: Act[]) {
    this.log = [...this.log.filter((a) => a.t <= t), ...acts.map((act) => ({ t, act }))];
    return this.answer(seq);
  }
  private answer(seq = 0) {
    const log = [...this.log];
    return new Promise((done) =>
      this.waiting.push(() =>
        done({ seq, log, trace, window: { fromUs: 0, keptSolutions: 0, part: trace } }),
      ),
    );
  }
}

const turn = async (): Promise<void> => new Promise((done) => setTimeout(done));

describe('a rehearsal', () => {
  const job = { id: 'j' } as Job;
  const profile = {} as Profile;

  function bed() {
    const worker = new SlowWorker();
    const compute = { rehearsal: () => ({ worker, end: () => undefined }) };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: Compute, useValue: compute },
        RehearsalSession,
      ],
    });
    const session = TestBed.inject(RehearsalSession);
    session.playing.set(false);
    const answer = async (): Promise<void> => {
      await turn();
      worker.waiting.shift()?.();
      await turn();
    };
    return { session, worker, answer, did: () => session.log().map(({ act }) => act.do) };
  }

  it('keeps a press made before the job is there', async () => {
    const { session, answer, did } = bed();
    void session.act({ do: 'supplyOn' });
    void session.open(job, profile, 'planned', [], false);
    await answer();
    await answer();
    expect(did()).toEqual(['supplyOn']);
  });

  it('keeps a press whose answer comes after the plan has changed under it', async () => {
    const { session, answer, did } = bed();
    void session.open(job, profile, 'planned', [], false);
    await answer();
    void session.act({ do: 'supplyOn' });
    await turn();
    void session.open(job, profile, 'planned', session.log(), true);
    await answer();
    await answer();
    expect(did()).toEqual(['supplyOn']);
  });

  it('keeps a press made between two plans, and shows the later one', async () => {
    const { session, answer, did, worker } = bed();
    void session.open(job, profile, 'planned', [], false);
    void session.act({ do: 'supplyOn' });
    void session.open(job, profile, 'factory', [], true);
    await answer();
    await answer();
    await answer();
    expect(did()).toEqual(['supplyOn']);
    expect(worker.waiting).toEqual([]);
  });

  it('forgets what came after the moment it went back to', async () => {
    const { session, answer, did } = bed();
    void session.open(job, profile, 'planned', [], false);
    await answer();
    session.seek(2e6);
    void session.act({ do: 'supplyOff' });
    await answer();
    session.seek(1e6);
    void session.act({ do: 'supplyOn' });
    await answer();
    expect(did()).toEqual(['supplyOn']);
  });
});
