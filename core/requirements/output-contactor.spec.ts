import { shippedProfile } from '../catalogue/index.js';
import { requirementsHeld, schemeFindings } from '../hazards/index.js';
import type { Fault, Job } from '../job/index.js';
import { planJob } from '../plan/index.js';
import { builtWith, adopted, bareJob } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { trialsOf } from '../trials/index.js';

const profile = shippedProfile('ondulet-n');
const job = adopted(
  bareJob(
    {
      startStop: 'threeWire',
      stationFeed: 'separate',
      startBy: undefined,
      directionBy: undefined,
      direction: 'forwardOnly',
      estop: 'safeTorqueOff',
      outputContactor: true,
    },
    profile,
    'N0220',
  ),
  profile,
);
const unloaded = (built: Job, p = profile): string | undefined =>
  requirementsHeld(built, p).find((r) => r.requirement.id === 'output.unloaded')?.state;

describe('a contactor between device and motor', () => {
  it('opens after the output was taken away and closes before it comes back, on every family', () => {
    const cases = [
      ...everyArrangement().filter(({ name }) => /outputContactor/u.test(name)),
      { name: 'with safe torque off', job, profile },
    ];
    expect(cases.length).toBeGreaterThan(8);
    for (const { name, job: built, profile: p } of cases) {
      expect(unloaded(built, p)).withContext(name).toBe('met');
      const { trace, trial } = trialsOf(built, p).run('interlock.output');
      const off = trial.acts.find((a) => a.do === 'press' && a.device === 'switch.output');
      const turned = (off?.atMs ?? NaN) * 1000;
      const seen = (us: number): [boolean, number] => [
        signalAt(trace, 'device.hz', us) !== 0,
        signalAt(trace, 'contactor.output.on', us),
      ];
      expect(seen(turned)).withContext(name).toEqual([true, 1]);
      expect(seen(turned + 400_000))
        .withContext(name)
        .toEqual([false, 1]);
      expect(seen(turned + 700_000))
        .withContext(name)
        .toEqual([false, 0]);
      // A level that stayed closed starts some devices again, whatever took the output away.
      const grave = schemeFindings(built, p).filter(
        (f) => f.severity === 'stop' && f.rule !== 'condition.returnStarts',
      );
      expect(grave.map((f) => f.rule))
        .withContext(name)
        .toEqual([]);
    }
  });

  it('does not do so with its time at nothing or with the way to the input bridged', () => {
    const bridged: Fault[] = [
      { kind: 'stuck', device: 'relay.output', contact: '13', is: 'closed' },
      { kind: 'stuck', device: 'contactor.output', contact: '13', is: 'closed' },
    ];
    expect(unloaded(builtWith(job, ...bridged))).toBe('notMet');
    const devices = { ...job.adopted?.devices };
    const timer = devices['timer.output'];
    devices['timer.output'] = { ...timer, params: { ...timer.params, delayOnS: 0 } };
    const atOnce = { ...job, adopted: { ...job.adopted, devices } } as Job;
    const { trace, trial } = trialsOf(atOnce, profile).run('interlock.output');
    const off = trial.acts.find((a) => a.do === 'press' && a.device === 'switch.output');
    const soon = (off?.atMs ?? NaN) * 1000 + 200_000;
    expect(signalAt(trace, 'contactor.output.on', soon)).toBe(0);
  });

  it('tells that its coil goes with the supply while the device still drives, and is planned for drives alone', () => {
    expect(schemeFindings(job, profile).map((f) => f.rule)).toContain('output.opensInDip');
    const starter = shippedProfile('pendrift-s');
    const bare = bareJob({ outputContactor: true }, starter, starter.models[0].name);
    const plan = planJob(bare, starter);
    expect(plan.ok ? '' : plan.code).toBe('outputContactorOfDrive');
  });
});
