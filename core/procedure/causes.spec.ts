import { applyFault, asBuilt, install, panelAt } from '../installation/index.js';
import { faultKey, verdictOfStep, type Fault, type Job, type ProcedureStep } from '../job/index.js';
import type { Profile, Value } from '../catalogue/index.js';
import { rehearse } from '../rehearsal/index.js';
import { shippedProfile } from '../catalogue/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { sayFaults } from '../words/index.js';
import { likelyCauses, type Told } from './causes.js';
import { seenAt } from './panel/runs.js';
import { liveOf } from './live/index.js';

/** Everything that is read when the live tests are done, as written, on a panel with one thing wrong. */
function readOn(job: Job, profile: Profile, fault: Fault): Told[] {
  const { steps, trials } = liveOf(job, profile);
  const panel = applyFault(asBuilt(job, profile), fault);
  return trials.flatMap((trial) => {
    const built = panelAt(job, profile, panel, trial.keypad);
    const installation = install(job, profile, { from: 'planned' }, { panel: built, lean: true });
    const trace = rehearse(installation, trial.acts, trial.endMs);
    const numbers = new Map(installation.landings.map((landing, i) => [landing, i]));
    return steps.flatMap((step): Told[] => {
      const { from, sees } = step;
      if (!sees || from.kind !== 'simulation' || from.script !== trial.id) return [];
      const value = seenAt(trace, sees, from.atUs, numbers);
      return value === undefined ? [] : [{ step, value }];
    });
  });
}

const fails = ({ step, value }: Told): boolean => verdictOfStep(step, value) === 'fail';

/** Answers up to the first that fails. */
function upToFirstFailure(told: readonly Told[]): { failed: Told; before: Told[] } | undefined {
  const at = told.findIndex(fails);
  return at < 0 ? undefined : { failed: told[at], before: told.slice(0, at) };
}

const wireOf = (job: Job, does: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === does)?.[0] ?? '';

describe('likeliest causes of a failed reading', () => {
  const n = shippedProfile('ondulet-n');
  const level = adopted(
    bareJob({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      speed: 'dial',
      accelS: 2,
      decelS: 2,
    }),
  );
  const chosen = adopted(
    bareJob({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      speed: 'presets',
      presetsHz: [20, 35],
      accelS: 2,
      decelS: 2,
    }),
  );
  const control = adopted(
    bareJob(
      {
        startStop: 'controller',
        controllerOutput: 'relay',
        startBy: undefined,
        directionBy: undefined,
        direction: 'forwardReverse',
        speed: 'voltage',
        accelS: 2,
        decelS: 2,
      },
      n,
      'N0220',
    ),
    n,
  );
  const pulse = adopted(
    bareJob(
      {
        startStop: 'threeWire',
        stationFeed: 'separate',
        direction: 'forwardReverse',
        estop: 'safeTorqueOff',
        speed: 'dial',
        accelS: 2,
        decelS: 2,
      },
      n,
      'N0220',
    ),
    n,
  );
  const planted: readonly (readonly [string, Job, Profile, (job: Job) => Fault])[] = [
    ['a run wire that is loose', level, marrowick(), (j) => ({ kind: 'open', wire: wireOf(j, 'run.forward') })],
    ['the wiper of the dial', level, marrowick(), (j) => ({ kind: 'open', wire: wireOf(j, 'dial.wiper') })],
    ['a contact of the other kind', level, marrowick(), () => ({ kind: 'wrongContact', device: 'contact.forward', contact: '13' })],
    ['a start wire that is loose', pulse, n, (j) => ({ kind: 'open', wire: wireOf(j, 'start') })],
    ['a joint that is loose', pulse, n, () => ({ kind: 'loose', at: 'button.start:13' })],
    ['a stop contact that stays closed', pulse, n, () => ({ kind: 'stuck', device: 'button.stop', contact: '11', is: 'closed' })],
    ['one channel of the emergency stop that stays closed', pulse, n, () => ({ kind: 'stuck', device: 'estop', contact: '21', is: 'closed' })],
    ['the ends of the dial exchanged', pulse, n, (j) => ({ kind: 'swapped', wires: [wireOf(j, 'dial.high'), wireOf(j, 'dial.low')], ends: ['to', 'to'] })],
    ['two leads of the motor exchanged', level, marrowick(), (j) => ({ kind: 'swapped', wires: [wireOf(j, 'motor.U'), wireOf(j, 'motor.V')], ends: ['to', 'to'] })],
    ['a preset that was keyed wrong', chosen, marrowick(), () => ({ kind: 'setting', code: '416', value: 25 })],
  ]; // prettier-ignore

  for (const [name, job, profile, faultOf] of planted)
    it(`name ${name} among the first three, from the readings up to the first that fails`, () => {
      const fault = faultOf(job);
      const seen = upToFirstFailure(readOn(job, profile, fault));
      expect(seen).withContext('the tests as written find it').toBeDefined();
      if (!seen) return;
      const causes = likelyCauses(job, profile, seen.failed, seen.before);
      const keys = causes.flatMap((c) => c.faults.map(faultKey));
      const mirrored =
        fault.kind === 'swapped'
          ? faultKey({ ...fault, wires: [fault.wires[1], fault.wires[0]] })
          : '';
      expect(keys.some((key) => key === faultKey(fault) || key === mirrored))
        .withContext(`${seen.failed.step.key} = ${String(seen.failed.value)}: ${keys.join(' ')}`)
        .toBeTrue();
      for (const cause of causes) {
        expect(cause.explains).toBeGreaterThanOrEqual(cause.of - 1);
        const { what, act } = sayFaults(cause.faults, job);
        for (const text of [what, act]) expect(text).not.toMatch(/undefined|w[0-9a-f]{10}|:$/u);
      }
    });

  it('name an exchange of outputs at the controller once both inputs were read', () => {
    const fault: Fault = {
      kind: 'part',
      device: 'controller.reverse',
      what: 'map',
      which: 'controller.run',
    };
    const told = readOn(control, n, fault);
    const second = told.findIndex((t) => fails(t) && t.step.key === 'input.run.reverse');
    expect(second).toBeGreaterThan(0);
    const causes = likelyCauses(control, n, told[second], told.slice(0, second));
    const keys = causes.flatMap((c) => c.faults.map(faultKey));
    expect(keys).withContext(told[second].step.key).toContain(faultKey(fault));
  });

  it('are none where the reading is what a sound panel gives, or what nothing single would give', () => {
    const { steps } = liveOf(level, marrowick());
    const step = steps.find((s) => s.key === 'dial.100.volts') as ProcedureStep;
    const told = (value: Value): Told => ({ step, value });
    expect(likelyCauses(level, marrowick(), told(7.77), [])).toEqual([]);
    expect(likelyCauses(level, marrowick(), { step: steps[0], value: 0 }, [])).toEqual([]);
  });

  it('turn to what explains the answers before as well', () => {
    const profile = marrowick();
    const { steps } = liveOf(level, profile);
    const at = (key: string, value: Value): Told => ({
      step: steps.find((s) => s.key === key) as ProcedureStep,
      value,
    });
    const alone = likelyCauses(level, profile, at('direction.run.forward', 'stopped'), [], 50);
    const read = likelyCauses(
      level,
      profile,
      at('direction.run.forward', 'stopped'),
      [at('input.run.forward', 'on'), at('input.run.forward.volts', 24)],
      50,
    );
    const run = (c: (typeof alone)[number]): boolean =>
      c.faults.some((f) => f.kind === 'open' && f.wire === wireOf(level, 'run.forward'));
    expect(alone.some(run)).toBeTrue();
    // With the input seen on, its wire cannot be loose.
    expect(read.some(run)).toBeFalse();
    expect(read.length).toBeGreaterThan(0);
  });
});
