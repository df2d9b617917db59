import { Sweep } from '../../hazards/index.js';
import { faultKey, type Fault, type Job } from '../../job/index.js';
import { everyArrangement } from '../../testing/matrix.js';
import { seeded } from '../../testing/mutate-job.js';
import { deadReadings } from './dead-readings.js';
import type { PanelReading } from './judged.js';
import { readingsOf } from './readings.js';

const JOBS = 10;
const FAULTS = 30;
const PATIENCE_MS = 180_000;

const failed = (readings: readonly PanelReading[]): PanelReading[] =>
  readings.filter(({ step, verdict }) => verdict === 'fail' && !step.requirement?.unmet);

const hidden = (job: Job, actual: Fault): Job => ({
  ...job,
  deviations: {
    one: { ord: 1, where: { kind: 'device', id: 'device' }, actual, why: 'nobody knows' },
  },
});

/** Landings that wires join: the potential on which each lies, by a sum of its own. */
function reach(job: Job): (landing: string) => string {
  const parent = new Map<string, string>();
  const root = (x: string): string => {
    const p = parent.get(x) ?? x;
    return p === x ? x : root(p);
  };
  for (const w of Object.values(job.adopted?.wires ?? {})) parent.set(root(w.from), root(w.to));
  return root;
}

const all = everyArrangement();
const stride = Math.floor(all.length / JOBS);

/** Every fault that is tried, with what the dead checks show of it, and where they show nothing, the live tests. */
function tryAll() {
  const random = seeded(30);
  return all
    .filter((_, i) => i % stride === stride - 1)
    .slice(0, JOBS)
    .flatMap(({ name, job, profile }) => {
      const sweep = new Sweep(job, profile);
      const chosen = [...sweep.faults].sort(() => random() - 0.5).slice(0, FAULTS);
      return chosen.map((swept) => {
        const panel = hidden(job, swept.fault);
        const dead = failed(deadReadings(job, profile, panel));
        const live = dead.length > 0 ? [] : failed(readingsOf(job, profile, panel));
        const { worst } = sweep.judge(swept);
        return {
          of: `${name} ${faultKey(swept.fault)}`,
          job,
          fault: swept.fault,
          worst,
          dead,
          live,
        };
      });
    });
}

describe('thirty faults in each of ten panels', () => {
  let tried: ReturnType<typeof tryAll> = [];
  beforeAll(() => {
    tried = tryAll();
  }, PATIENCE_MS);

  it('are all of them seen by the procedure, but shorts that only double a wire', () => {
    expect(tried.length).toBeGreaterThan(JOBS * FAULTS * 0.9);
    for (const { of, fault, worst, dead, live } of tried) {
      if (dead.length + live.length > 0) continue;
      expect([fault.kind, worst]).withContext(of).toEqual(['short', 'noEffect']);
    }
    const seen = tried.filter(({ dead, live }) => dead.length + live.length > 0).length;
    expect(seen / tried.length).toBeGreaterThan(0.75);
  });

  it('are seen dead, where a wire is open, at that wire or at what lies on the same potential', () => {
    let wires = 0;
    for (const { of, job, fault, dead } of tried) {
      if (fault.kind !== 'open') continue;
      const root = reach(job);
      const at = (id: string): string => root(job.adopted?.wires[id]?.from ?? id);
      for (const { step } of dead) {
        const [, kind, id] = step.key.split('.');
        if (kind !== 'wire' && kind !== 'pe') continue;
        wires++;
        expect(at(id)).withContext(`${of}: ${step.key}`).toBe(at(fault.wire));
      }
      // A protective conductor has a step of its own, and nothing else fails for it.
      if (job.adopted?.wires[fault.wire]?.class === 'pe')
        expect(dead.map(({ step }) => step.key))
          .withContext(of)
          .toEqual([`dead.pe.${fault.wire}`]);
    }
    expect(wires).toBeGreaterThan(10);
  });
});
