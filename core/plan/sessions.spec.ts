import {
  changesSpeed,
  factorySettings,
  hasKeys,
  keyedInto,
  roleSetting,
  taskCode,
  modelOf,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import { install } from '../installation/index.js';
import type { Act, Job } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { directionsOf, give, powerUp, READY_MS } from '../scheme/index.js';
import { afterLine, afterSession } from '../testing/keyed.js';
import { everyArrangement } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { adoption, arrangeFor, planJob, type KeyLine } from './index.js';
import { inputTaskCodes } from './key-inputs.js';
import { keyingFaults } from './keying-faults.js';
import { keyingLines, keyingWays, mayMove } from './keying.js';

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

const command = (profile: Profile): string | undefined => roleSetting(profile, 'commandSource');
const sameHz = (x: number): boolean => Math.abs(x) < 0.01;

/** Values that a family's model leaves the factory with. */
const factoryOf = (job: Job, profile: Profile): Values => {
  const model = modelOf(profile, job.profile.model);
  return model ? factorySettings(profile, model) : {};
};

/** Keys a session line by line with everything held closed; the line after which the motor is driven, where one is. */
function movedBy(job: Job, profile: Profile, held: Values, lines: readonly KeyLine[]) {
  let now = { ...held };
  const acts = heldClosed(job, profile);
  for (const line of lines) {
    if (line.code === undefined || line.to === undefined) continue;
    now = afterLine(profile, factoryOf(job, profile), now, line);
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
      const held = afterSession(profile, factory, factory, one.keying);
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
      const factory = factorySettings(profile, model);
      const { keying: first } = planOf(job, profile, factory);
      const held = afterSession(profile, factory, factory, first);
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

  it('have the device measure its motor after everything that undoes it, and make everything still before the next value', () => {
    let seen = 0;
    for (const { name, job, profile } of everyArrangement()) {
      const { identification } = profile;
      const factory = factoryOf(job, profile);
      const { keying } = planOf(job, profile, factory);
      const at = keying.findIndex((l) => l.hold === 'identify');
      expect(at >= 0)
        .withContext(name)
        .toBe(identification !== undefined);
      if (!identification) continue;
      seen++;
      const later = keying.slice(at + 1);
      expect(later[0].hold).withContext(name).toBe('stillAgain');
      expect(later.filter((l) => l.code && identification.voids.includes(l.code)))
        .withContext(name)
        .toEqual([]);
      expect(keying.slice(0, at).some((l) => l.part === 'handOver'))
        .withContext(name)
        .toBeFalse();
      const held = afterSession(profile, factory, factory, keying);
      expect(planOf(job, profile, held).keying.map((l) => l.hold))
        .withContext(`${name}: measured, and nothing left to do`)
        .toEqual(['readBack']);
      // A motor plate that is keyed anew undoes it: it is measured again.
      const [void_] = identification.voids.filter((code) => job.adopted?.settings[code]);
      const wiped = keyedInto(profile, factory, held, void_, 77);
      expect(planOf(job, profile, wiped).keying.some((l) => l.hold === 'identify'))
        .withContext(`${name}: ${void_} was keyed otherwise`)
        .toBeTrue();
    }
    expect(seen).toBeGreaterThan(40);
  });

  it('that begin with a ready-made arrangement end with the same values, tell their presses, and move nothing before hand-over', () => {
    let seen = 0;
    for (const { name, job, profile } of everyArrangement()) {
      const factory = factoryOf(job, profile);
      const [, ...ready] = keyingWays(job, profile, factory);
      const plain = afterSession(profile, factory, factory, keyingLines(job, profile, factory));
      for (const way of ready) {
        const chosen = { ...job, decisions: { ...job.decisions, readyMade: way.readyMade } };
        const lines = keyingLines(chosen, profile, factory);
        const context = `${name} ${way.name}`;
        const presses = lines.flatMap((l) => l.presses).reduce((n, p) => n + p.times, 0);
        expect(way.presses).withContext(context).toBe(presses);
        expect(keyingFaults(profile, factory, lines, factory))
          .withContext(context)
          .toEqual([]);
        expect(afterSession(profile, factory, factory, lines))
          .withContext(context)
          .toEqual(plain);
        if (seen++ % 4 > 0) continue;
        const done = movedBy(job, profile, factory, lines);
        expect(done.line?.part ?? 'handOver')
          .withContext(context)
          .toBe('handOver');
      }
    }
    expect(seen).toBeGreaterThan(5);
  });

  it('without the holds after a ready-made arrangement or a measured motor are caught', () => {
    const cases = everyArrangement().filter(({ profile }) => profile.family === 'ondulet-n');
    let [made, measured] = [0, 0];
    for (const { job, profile } of cases) {
      const factory = factoryOf(job, profile);
      const faults = (lines: readonly KeyLine[]) =>
        keyingFaults(profile, factory, lines, factory).map((f) => f.rule);
      const without = (lines: readonly KeyLine[], hold: string) =>
        faults(lines.filter((l) => l.hold !== hold));
      const lines = keyingLines(job, profile, factory);
      if (lines.some((l) => l.hold === 'stillAgain' && lines.indexOf(l) < lines.length - 2)) {
        measured++;
        expect(without(lines, 'stillAgain')).toContain('keying.notStillAgain');
      }
      const [, ready] = keyingWays(job, profile, factory);
      if (!ready) continue;
      made++;
      const chosen = { ...job, decisions: { ...job.decisions, readyMade: ready.readyMade } };
      const with_ = keyingLines(chosen, profile, factory);
      expect(without(with_, 'afterReadyMade')).toContain('keying.notStillAgain');
      const late = with_.filter((l) => l.key !== `${command(profile)}.again`);
      expect(faults(late)).toContain('keying.terminalsCommand');
    }
    expect([made, measured].every((n) => n > 0)).toBeTrue();
  });

  it('key the stop before the start on a device that refuses half a pair, and say what another makes of it', () => {
    let [refused, warned] = [0, 0];
    for (const { name, job, profile } of everyArrangement()) {
      const factory = factoryOf(job, profile);
      const none = taskCode(profile, 'none');
      const bare =
        none === undefined
          ? factory
          : { ...factory, ...Object.fromEntries(inputTaskCodes(profile).map((c) => [c, none])) };
      const { keying } = planOf(job, profile, bare);
      const notes = keying.filter((l) => l.note);
      if (profile.incompletePair === 'accepted') expect(notes).withContext(name).toEqual([]);
      if (profile.incompletePair === 'refused' && notes.length > 0) refused++;
      if (profile.incompletePair === 'warned' && notes.length > 0) warned++;
      expect(keyingFaults(profile, bare, keying, factory))
        .withContext(name)
        .toEqual([]);
    }
    expect([refused > 2, warned > 2])
      .withContext(`${refused} ${warned}`)
      .toEqual([true, true]);
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
