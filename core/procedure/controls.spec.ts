import { shippedProfile, type Profile } from '../catalogue/index.js';
import type { Job, ProcedureStep, Scheme } from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { say } from '../words/index.js';
import { liveSteps } from './live/index.js';

const n = shippedProfile('ondulet-n');
const careful: Partial<Scheme> = {
  startStop: 'threeWire',
  stationFeed: 'separate',
  startBy: undefined,
  directionBy: undefined,
  direction: 'forwardOnly',
  accelS: 2,
  decelS: 2,
};
const jobOf = (scheme: Partial<Scheme>, profile: Profile = n): Job =>
  adopted(
    bareJob({ ...careful, ...scheme }, profile, profile.family === 'ondulet-n' ? 'N0220' : 'F02'),
    profile,
  );
const steps = (scheme: Partial<Scheme>, profile: Profile = n): Record<string, ProcedureStep> =>
  Object.fromEntries(liveSteps(jobOf(scheme, profile), profile).map((s) => [s.key, s]));
const state = (s: ProcedureStep | undefined): string | undefined =>
  s?.expect?.kind === 'state' ? s.expect.is : undefined;
const nominal = (s: ProcedureStep | undefined): number | undefined =>
  s?.expect?.kind === 'range' ? s.expect.nominal : undefined;

describe('live tests of the controls', () => {
  it('an emergency stop stops, and twisting it out must start nothing, whatever this job does', () => {
    const latch = steps({ estop: 'safeTorqueOff' });
    expect([state(latch['estop.stops']), state(latch['estop.returns'])]).toEqual([
      'stopped',
      'staysStopped',
    ]);
    const level = steps(
      { startStop: 'twoWire', startBy: 'selector', estop: 'safeTorqueOff' },
      { ...n, policies: { ...n.policies, onEnableReturn: { fixed: 'followLevel' } } },
    );
    expect([level['estop.returns'].expect, level['estop.returns'].requirement]).toEqual([
      { kind: 'state', is: 'staysStopped' },
      { id: 'estop.released', unmet: 'runsForward' },
    ]);
    expect(steps({})['estop.stops']).toBeUndefined();
  });

  it('with a contactor the step says which button gives power again', () => {
    const s = steps(
      { startStop: 'twoWire', startBy: 'selector', estop: 'contactorInhibit' },
      marrowick(),
    );
    expect(say(s['estop.returns'].do)).toBe(
      'S4 still given. Stand clear, twist S1 out and press S3.',
    );
    expect(say(s['supply.on'].do)).toContain('close Q1, then press S3');
  });

  it('every interlock is opened under way, and closing it must start nothing: a level run that comes back by itself fails', () => {
    const interlocks: Scheme['interlocks'] = ['guard', 'thermostat'];
    const latch = steps({ interlocks });
    const level = steps({ startStop: 'twoWire', startBy: 'selector', interlocks });
    for (const id of ['interlock.guard', 'interlock.thermostat']) {
      expect([
        state(latch[`${id}.stops`]),
        state(latch[`${id}.returns`]),
        state(level[`${id}.returns`]),
        latch[`${id}.returns`].requirement?.unmet,
        level[`${id}.returns`].requirement?.unmet,
      ])
        .withContext(id)
        .toEqual(['stopped', 'staysStopped', 'staysStopped', undefined, 'runsForward']);
    }
  });

  it('every further station starts and stops; one whose stop is not wired does not', () => {
    const job = jobOf({ stations: 2 });
    expect(liveSteps(job, n).find((s) => s.key === 'station.2')?.expect).toEqual({
      kind: 'state',
      is: 'worked',
    });
    const wires = Object.fromEntries(
      Object.entries(job.adopted?.wires ?? {}).filter(
        ([, w]) => w.from !== 'button.start.2:14' && w.to !== 'button.start.2:14',
      ),
    );
    const cut = { ...job, adopted: { ...(job.adopted as NonNullable<Job['adopted']>), wires } };
    const dead = liveSteps(cut, n).find((s) => s.key === 'station.2');
    expect([dead?.expect, dead?.requirement]).toEqual([
      { kind: 'state', is: 'worked' },
      { id: 'stop.2.stops', unmet: 'stands' },
    ]);
  });

  it('jog runs at its frequency, each way as wished', () => {
    const s = steps({ direction: 'forwardReverse', jog: 'bothWays', jogHz: 7 });
    expect([nominal(s['jog.forward']), nominal(s['jog.reverse'])]).toEqual([7, 7]);
    expect(say(s['jog.reverse'].do)).toContain('runs in reverse');
    expect(steps({ jog: 'forward', jogHz: 7 })['jog.reverse']).toBeUndefined();
  });

  it('every preset is read, and moves when its value is changed: the others stay', () => {
    const presets = (presetsHz: number[]): ProcedureStep[] =>
      Object.values(steps({ presetsHz, speed: 'presets' })).filter((s) =>
        s.key.startsWith('preset.'),
      );
    const [before, after] = [presets([12, 24, 36]), presets([12, 30, 36])];
    expect(before.map(nominal)).toEqual([12, 24, 36]);
    expect(after.map(nominal)).toEqual([12, 30, 36]);
    expect(before.map((s, i) => s.basis === after[i].basis)).toEqual([true, false, true]);
  });

  it('a start warning is timed with the relays in it', () => {
    const s = steps({ startStop: 'twoWire', startBy: 'levelContact', startWarningS: 4 });
    // 4 s and 15 ms of the timer, 4 ms of the input.
    expect(nominal(s['warning'])).toBeCloseTo(4.019, 3);
  });

  it('warns that the motor turns where an input alone starts it, and not where the speed is at zero', () => {
    const cautions = (scheme: Partial<Scheme>, key: string): readonly string[] =>
      steps({ startStop: 'twoWire', startBy: 'selector', ...scheme })[key].cautions;
    expect(cautions({}, 'input.run.forward')).toEqual(['cannotRun']);
    expect(cautions({ minHz: 10 }, 'input.run.forward')).toEqual(['turns', 'freeToTurn']);
    expect(cautions({ speed: 'presets', presetsHz: [20, 30] }, 'input.run.forward')).toEqual([
      'turns',
      'freeToTurn',
    ]);
    expect(cautions({ jog: 'forward', jogHz: 5 }, 'input.jogForward')).toEqual([
      'turns',
      'freeToTurn',
    ]);
    expect(cautions({ secondRamp: true }, 'input.rampSelect')).toEqual([]);
  });

  it('every step has words without a hole', () => {
    const schemes: Partial<Scheme>[] = [
      { estop: 'safeTorqueOff', stations: 3, jog: 'bothWays', interlocks: ['level'] },
      { startStop: 'controller', controllerOutput: 'relay', speed: 'current' },
      { speed: 'presets', presetsHz: [10, 20] },
      { speed: 'upDown' },
      { startStop: 'sealInRelay', latchSupply: 'own24', speed: 'voltage', footStop: 'stop' },
    ];
    for (const scheme of schemes)
      for (const s of Object.values(steps(scheme))) {
        expect(`${say(s.do)} ${say(s.must)}`)
          .withContext(s.key)
          .not.toMatch(/undefined|NaN|^\w+\.\w+/u);
      }
  });
});
