import { roleSetting, shippedProfile, type Profile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import type { Job } from '../job/index.js';
import { coastTime } from '../line/index.js';
import { adoption, planJob } from '../plan/index.js';
import { liveOf } from '../procedure/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { sayFinding } from '../words/index.js';
import { judged, type Judged } from './index.js';

const cases = everyArrangement();
const held = (job: Job, profile: Profile, id: string): Judged | undefined =>
  judged(trialsOf(job, profile)).find((j) => j.requirement.id === id);

/** A drive with two torque-off inputs. */
const ondulet = (): Profile => shippedProfile('ondulet-n');
const withHead = (scheme: Partial<Job['scheme']> = {}): Job =>
  adopted(
    bareJob({ estop: 'safeTorqueOff', ...scheme }, ondulet(), ondulet().models[3].name),
    ondulet(),
  );

describe('limits that a machine must keep', () => {
  it('of time: every arrangement is held to the time to rest that is required, and Live never expects a longer one', () => {
    let [asked, tooLong] = [0, 0];
    for (const [i, { name, job, profile }] of cases.entries())
      for (const restWithinS of [i % 2 === 0 ? 0.4 : 60]) {
        const wished = { ...job, scheme: { ...job.scheme, restWithinS } };
        const all = judged(trialsOf(wished, profile));
        const own = all.filter((j) => j.requirement.id.endsWith('.inTime'));
        expect(own.length).withContext(name).toBeGreaterThan(0);
        const { steps } = liveOf(wished, profile);
        for (const { requirement, state } of own) {
          const step = steps.find((s) => s.requirement?.id === requirement.id);
          const context = `${name} within ${restWithinS} s: ${requirement.id}`;
          expect(step).withContext(context).toBeDefined();
          if (step?.expect?.kind !== 'range') throw new Error(`${context} expects a time`);
          expect(step.expect.hi).withContext(context).toBeLessThanOrEqual(restWithinS);
          expect(step.requirement?.unmet === undefined)
            .withContext(context)
            .toBe(state === 'met');
          asked++;
          if (state === 'notMet') tooLong++;
        }
      }
    expect(asked).toBeGreaterThan(150);
    expect(tooLong).toBeGreaterThan(asked / 4);
  });

  it('of time: the run-down of a free shaft decides, by ∫dω/(T/J); without an inertia nothing is said to be met', () => {
    const job = withHead({ direction: 'forwardOnly' });
    const seconds = coastTime(job.plate, 50) ?? NaN;
    expect(seconds).toBeGreaterThan(0.2);
    const within = (s: number): Job => ({ ...job, scheme: { ...job.scheme, restWithinS: s } });
    expect(held(within(seconds * 0.9), ondulet(), 'estop.inTime')?.state).toBe('notMet');
    expect(held(within(seconds * 1.1), ondulet(), 'estop.inTime')?.state).toBe('met');
    const unknown = within(60);
    const { inertia: _inertia, ...load } = unknown.plate.load;
    const bare: Job = { ...unknown, plate: { ...unknown.plate, load } };
    const open = held(bare, ondulet(), 'estop.inTime');
    expect([open?.state, open?.does]).toEqual(['undecided', 'runsDownUnknown']);
    const step = liveOf(bare, ondulet()).steps.find((s) => s.requirement?.id === 'estop.inTime');
    expect(step?.expect).toEqual(jasmine.objectContaining({ lo: 0, hi: 60 }));
  });

  it('of speed: a highest frequency keyed above the wished one is seen where the keypad gives the speed', () => {
    const job = adopted(bareJob({ speed: 'keypad', maxHz: 40 }));
    expect(held(job, marrowick(), 'speed.limits')?.state).toBe('met');
    const settings = structuredClone(job.adopted?.settings ?? {});
    settings[roleSetting(marrowick(), 'maxHz') as string].value = 60;
    const bad = { ...job, adopted: job.adopted && { ...job.adopted, settings } };
    const found = held(bad, marrowick(), 'speed.limits');
    expect([found?.state, found?.does]).toEqual(['notMet', 'tooFast']);
  });

  it('of phases: a device that follows a run again when a lost phase returns is told', () => {
    for (const { name, job, profile } of cases) {
      const one = held(job, profile, 'phase.comesBack');
      const three = profile.supply.phases === 3 && job.scheme.powerReturn !== 'restart';
      if (!three || !one) continue;
      expect(one.requirement.looks.length).withContext(name).toBe(3);
      expect(one.state).withContext(name).toBe('met');
    }
    expect(cases.some((c) => held(c.job, c.profile, 'phase.comesBack'))).toBeTrue();
  });

  it('of channels: each contact of the emergency stop that is wished wired must stop alone, landed or not', () => {
    const job = withHead();
    const ids = ['estop.channel.1.alone', 'estop.channel.2.alone'];
    expect(ids.map((id) => held(job, ondulet(), id)?.state)).toEqual(['met', 'met']);
    for (const [i, terminal] of ['11', '21'].entries()) {
      const wires = structuredClone(job.adopted?.wires ?? {});
      const ends = Object.values(wires).filter((w) =>
        [w.from, w.to].some((end) => end === `estop:${terminal.slice(0, 1)}2`),
      );
      // The channel bridged: its way on is fed from before the contact.
      for (const w of ends)
        if (w.to === `estop:${terminal.slice(0, 1)}2`) w.to = `estop:${terminal}`;
        else w.from = `estop:${terminal}`;
      const bad = { ...job, adopted: job.adopted && { ...job.adopted, wires } };
      expect(ids.map((id) => held(bad, ondulet(), id)?.state))
        .withContext(terminal)
        .toEqual(i === 0 ? ['notMet', 'met'] : ['met', 'notMet']);
    }
  });

  it('of hands: with the disconnecting device open everything behind it is dead, filter and reactor in the way; a tap ahead of it is told', () => {
    let [isolated, tapped] = [0, 0];
    for (const { name, job, profile } of cases) {
      const line = {
        isolator: {},
        inputFilter: { sidesChecked: true },
        reactor: { pct: 3 },
        outputFilter: {},
      };
      const wished: Job = { ...job, plate: { ...job.plate, line } };
      const plan = planJob(wished, profile);
      if (!plan.ok) throw new Error(`${name} cannot be planned`);
      const built = { ...wished, adopted: adoption(plan) };
      const all = judged(trialsOf(built, profile));
      const before = judged(trialsOf(job, profile)).filter((j) => j.state === 'notMet');
      expect(all.find((j) => j.requirement.id === 'isolator.dead')?.state)
        .withContext(name)
        .toBe('met');
      expect(all.filter((j) => j.state === 'notMet').map((j) => j.requirement.id))
        .withContext(name)
        .toEqual(before.map((j) => j.requirement.id));
      expect(checkJob(built, profile).some((f) => f.rule === 'supply.staysLive'))
        .withContext(name)
        .toBeFalse();
      isolated++;
      const wires = structuredClone(built.adopted.wires);
      const tap = Object.values(wires).find((w) => w.function === 'control.L1');
      if (!tap) continue;
      tap.from = 'supply:L1';
      const bad = { ...built, adopted: { ...built.adopted, wires } };
      const found = held(bad, profile, 'isolator.dead');
      expect([found?.state, found?.does]).withContext(name).toEqual(['notMet', 'staysLive']);
      tapped++;
    }
    expect(isolated).toBe(cases.length);
    expect(tapped).toBeGreaterThan(5);
  });

  it('of hands: without a disconnecting device the control supply stays live, in orange, and that is told', () => {
    const job = adopted(
      bareJob({ estop: 'contactor', startStop: 'twoWire' }, ondulet(), 'N0220'),
      ondulet(),
    );
    const taps = Object.values(job.adopted?.wires ?? {}).filter((w) => w.class === 'controlAc');
    expect(taps.length).toBeGreaterThan(3);
    expect(new Set(taps.map((w) => w.colour))).toEqual(new Set(['orange']));
    expect(checkJob(job, ondulet()).map((f) => f.rule)).toContain('supply.staysLive');
  });

  it('are told where a start while the machine runs down trips the device', () => {
    const profile = structuredClone(ondulet()) as Profile & {
      policies: Record<string, { fixed: string }>;
    };
    const light = withHead();
    const load = { ...light.plate.load, inertia: { v: 20, u: 'kg·m²' as const } };
    const job = { ...light, plate: { ...light.plate, load } };
    const told = (): string[] =>
      checkJob(job, structuredClone(profile))
        .filter((f) => f.rule === 'coast.startTrips')
        .map((f) => sayFinding(f).what);
    expect(told()).toEqual([]);
    profile.policies['startWhileCoasting'] = { fixed: 'fault' };
    expect(told()).toEqual([
      jasmine.stringMatching(/still runs down after S\d+ trips the device/u),
    ]);
  });
});
