import { shippedProfile } from '../catalogue/index.js';
import { testValuesIn, type Evidence, type Job } from '../job/index.js';
import { liveSteps } from '../procedure/index.js';
import { handOverObstacles, heldValues, testValuesHeld } from '../records/index.js';
import { plateFacts } from '../line/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { menuStarter, starterJob, withPlan } from '../testing/starter-jobs.js';
import { testValuesFor, withTestValues } from './index.js';

const profile = shippedProfile('marrowick-f');
const built = (scheme: Partial<Job['scheme']> = {}): Job =>
  adopted(bareJob({ accelS: 12, decelS: 9, ...scheme }));
const at = (minute: number): string => new Date(Date.UTC(2026, 0, 1, 8, minute)).toISOString();
const temporary = (minute: number, body: object): Evidence =>
  ({
    id: `e${minute}`,
    kind: 'temporary',
    subject: 'temporary.1',
    body: { version: 1, kind: 'testValue', what: 'ramps', ...body },
    author: { name: 'A', role: '' },
    atClient: at(minute),
  }) as unknown as Evidence;

describe('test values', () => {
  it('are ramps shorter than planned, unequal, and longer than torque and braking allow', () => {
    const job = built();
    const [accel, decel] = testValuesFor(job, profile);
    const shortest = (id: string): number =>
      plateFacts(job, profile).find((f) => f.id === id)?.value as number;
    expect([accel.planned, decel.planned]).toEqual([12, 9]);
    expect(accel.test).not.toBe(decel.test);
    expect(accel.test as number).toBeGreaterThan(shortest('shortestStart'));
    expect(decel.test as number).toBeGreaterThan(shortest('shortestStop'));
    expect([accel.test as number, decel.test as number].every((x) => x < 9)).toBeTrue();
  });

  it('are not offered where the plan is as short, nothing tells what is allowed, or nothing has ramps', () => {
    expect(testValuesFor(built({ accelS: 1, decelS: 1 }), profile)).toEqual([]);
    const bare = bareJob({ accelS: 12, decelS: 9 });
    const unknown = adopted({
      ...bare,
      plate: {
        ...bare.plate,
        motor: { ...bare.plate.motor, inertia: undefined },
        load: { kind: 'constant' },
      },
    });
    expect(testValuesFor(unknown, profile)).toEqual([]);
    expect(testValuesFor(withPlan(starterJob({})), menuStarter)).toEqual([]);
    expect(testValuesFor(built({ stopMode: 'coast' }), profile).length).toBe(1);
    const jogs = testValuesFor(built({ jog: 'forward', jogHz: 5 }), profile);
    expect(jogs.map((v) => v.test)).toContain(7);
    const presets = testValuesFor(built({ speed: 'presets', presetsHz: [15, 30, 45] }), profile);
    expect(presets.map((v) => [v.planned, v.test])).toContain([15, 7]);
    const fast = testValuesFor(
      built({ speed: 'presets', presetsHz: [15, 30], minHz: 10 }),
      profile,
    );
    expect(fast.map((v) => v.test)).not.toContain(7);
  });

  it('are what the tests expect while they are in; what does not rest on them stands as it was read', () => {
    const job = built();
    const values = Object.fromEntries(testValuesFor(job, profile).map((v) => [v.code, v.test]));
    const [plan, test] = [job, withTestValues(job, values)].map((j) => liveSteps(j, profile));
    const up = (steps: typeof plan): number => {
      const expect = steps.find((s) => s.key === 'ramp.up')?.expect;
      return expect?.kind === 'range' ? expect.nominal : NaN;
    };
    expect(up(plan) / up(test)).toBeCloseTo(12 / (Object.values(values)[0] as number), 1);
    expect(test.map((s) => s.key)).toEqual(plan.map((s) => s.key));
    const same = test.filter((s, i) => s.basis === plan[i].basis).length;
    expect(same).toBeGreaterThan(0.8 * plan.length);
  });

  it('stand in the device from when they are keyed until they are put back, and block handing over meanwhile', () => {
    const job = built();
    const [accel] = testValuesFor(job, profile);
    const put = temporary(1, { values: { [accel.code]: accel.test } });
    const back = temporary(2, { values: { [accel.code]: accel.planned }, removed: true });
    for (const evidence of [
      [put, back],
      [back, put],
    ]) {
      expect(
        heldValues(
          job,
          profile,
          evidence.filter((e) => e !== back),
        )?.[accel.code],
      ).toBe(accel.test);
      expect(heldValues(job, profile, evidence)?.[accel.code]).toBe(accel.planned);
      expect(testValuesIn(evidence)).toEqual({});
    }
    expect(testValuesIn([put])).toEqual({ [accel.code]: accel.test });
    const keyed = {
      ...put,
      id: 'e9',
      kind: 'keyed',
      subject: accel.code,
      body: { code: accel.code, value: accel.planned },
      atClient: at(5),
    } as unknown as Evidence;
    expect(testValuesHeld(job, profile, [put])).toEqual({ [accel.code]: accel.test });
    expect(testValuesHeld(job, profile, [put, keyed])).toEqual({});
    const blocks = (evidence: Evidence[]): string[] =>
      handOverObstacles(job, [], [], [], evidence).map((o) => o.code);
    expect(blocks([put])).toContain('obstacle.temporary');
    expect(blocks([put, back])).not.toContain('obstacle.temporary');
  });
});
