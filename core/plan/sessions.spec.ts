import {
  changesSpeed,
  factorySettings,
  hasKeys,
  modelOf,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import { install } from '../installation/index.js';
import type { Act, Job } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { directionsOf, give, powerUp, READY_MS } from '../scheme/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { adoption, arrangeFor, planJob } from './index.js';
import { keyingFaults, keyingLines, mayMove, type KeyLine } from './keying.js';

type Values = Record<string, Value>;

/** Every control that starts something held closed, with the speed as high as it goes. */
function heldClosed(job: Job, profile: Profile): Act[] {
  const a = arrangeFor(job, profile);
  const starts = directionsOf(a).flatMap((d) => a.starts[d] ?? []);
  const acts = [...new Set([...starts, ...Object.values(a.jogs)])].map((id, i) =>
    give(a, id, READY_MS + 200 * i),
  );
  return [...powerUp(a, 1), ...acts.filter((act) => act !== undefined)];
}

const sameHz = (x: number): boolean => Math.abs(x) < 0.01;

/** Keys a session line by line with everything held closed; the line after which the motor is driven, where one is. */
function movedBy(job: Job, profile: Profile, held: Values, lines: readonly KeyLine[]) {
  const now = { ...held };
  const acts = heldClosed(job, profile);
  for (const line of lines) {
    if (line.code === undefined || line.to === undefined) continue;
    now[line.code] = line.to;
    const snapshot = { from: 'snapshot', id: 's', values: { ...now } } as const;
    const trace = rehearse(install(job, profile, snapshot), acts, READY_MS + 4000);
    const hz = signalAt(trace, 'device.hz', (READY_MS + 3900) * 1000);
    if (!sameHz(hz)) return { line, now };
  }
  return { line: undefined, now };
}

const planOf = (job: Job, profile: Profile, held: Values) => {
  const plan = planJob(job, profile, held);
  if (!plan.ok) throw new Error(plan.what);
  return plan;
};

describe('sessions of keying', () => {
  // A keypad that commands starts by its own key, whatever contacts do.
  const cases = everyArrangement().filter(
    ({ job }, i) => i % 3 === 0 && job.scheme.startStop !== 'keypad',
  );

  it('leave the motor at 0 Hz with every control held closed until hand-over; so does a second one after a changed scheme', () => {
    let [first, second] = [0, 0];
    for (const { name, job, profile } of cases) {
      const model = modelOf(profile, job.profile.model);
      if (!model) continue;
      const factory = factorySettings(profile, model);
      const one = planOf(job, profile, factory);
      expect(keyingFaults(profile, factory, one.keying))
        .withContext(name)
        .toEqual([]);
      const done = movedBy(job, profile, factory, one.keying);
      // What has no keys is set with everything off.
      if (done.line && hasKeys(profile)) {
        first++;
        expect(done.line.part).withContext(`${name} ${done.line.key}`).toBe('handOver');
      }
      const held: Values = { ...factory };
      for (const line of one.keying) if (line.code) held[line.code] = line.to as Value;
      // Keyed whole, the device holds the plan: nothing is left to key.
      expect(planOf(job, profile, held).keying.filter((l) => l.code))
        .withContext(name)
        .toEqual([]);

      const lowest = changesSpeed(profile) ? { minHz: 5 } : {};
      const scheme = {
        ...job.scheme,
        ...lowest,
        accelS: 7,
        powerReturn: 'restart' as const,
      };
      const changed: Job = { ...job, scheme: { ...scheme, exposed: 'nobody' } };
      const two = planOf(changed, profile, held);
      const built = { ...changed, adopted: adoption(two) };
      expect(keyingFaults(profile, held, two.keying))
        .withContext(name)
        .toEqual([]);
      const again = movedBy(built, profile, held, two.keying);
      if (again.line && hasKeys(profile)) {
        second++;
        expect(again.line.part).withContext(`${name} again: ${again.line.key}`).toBe('handOver');
      }
    }
    expect([first, second].every((n) => n > 8))
      .withContext(`${first} ${second}`)
      .toBeTrue();
  });

  it('in which nothing can move have one hold, at rest, and leave command where it is', () => {
    let seen = 0;
    for (const { name, job, profile } of cases) {
      const model = modelOf(profile, job.profile.model);
      if (!model) continue;
      const held: Values = { ...factorySettings(profile, model) };
      for (const line of planOf(job, profile, held).keying)
        if (line.code) held[line.code] = line.to as Value;
      const changed: Job = { ...job, scheme: { ...job.scheme, accelS: 11, decelS: 12 } };
      const { keying } = planOf(changed, profile, held);
      const codes = keying.flatMap((l) => l.code ?? []);
      if (codes.length === 0 || codes.some((code) => mayMove(profile, code))) continue;
      seen++;
      expect(keying.flatMap((l) => l.hold ?? []))
        .withContext(name)
        .toEqual(
          hasKeys(profile) ? ['atRest', 'readBack'] : ['dialsDead', 'noteAsFound', 'readBack'],
        );
      expect(keyingFaults(profile, held, keying))
        .withContext(name)
        .toEqual([]);
    }
    expect(seen).toBeGreaterThan(8);
  });

  it('note what was found before command is taken to the keypad, with the emergency stop pressed in where there is one', () => {
    for (const { name, job, profile } of cases) {
      const model = modelOf(profile, job.profile.model);
      if (!model) continue;
      const { keying } = planOf(job, profile, factorySettings(profile, model));
      const holds = keying.flatMap((l) => l.hold ?? []);
      const estop = arrangeFor(job, profile).estop !== undefined && hasKeys(profile);
      if (keying.every((l) => l.code === undefined)) continue;
      const still = hasKeys(profile) ? 'openRunContacts' : 'dialsDead';
      expect(holds.slice(0, estop ? 3 : 2))
        .withContext(name)
        .toEqual([...(estop ? ['estopIn'] : []), still, 'noteAsFound']);
      const note = keying.findIndex((l) => l.hold === 'noteAsFound');
      expect(keying.slice(0, note).every((l) => l.code === undefined))
        .withContext(name)
        .toBeTrue();
    }
  });

  it('key what was adopted, not a plan that waits for its adoption', () => {
    for (const { name, job, profile } of cases.slice(0, 12)) {
      const model = modelOf(profile, job.profile.model);
      if (!model) continue;
      const factory = factorySettings(profile, model);
      const keyed = (of: Job) => keyingLines(of, profile, factory);
      expect(keyed(job).map((l) => [l.key, l.to]))
        .withContext(name)
        .toEqual(planOf(job, profile, factory).keying.map((l) => [l.key, l.to]));
      const wished: Job = { ...job, scheme: { ...job.scheme, accelS: 17 } };
      expect(keyed(wished)).withContext(name).toEqual(keyed(job));
      const { adopted: _adopted, ...bare } = job;
      expect(keyed(bare)).toEqual([]);
    }
  });
});
