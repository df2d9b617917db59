import { modelOf, shippedProfile, type Profile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { install, linkOf } from '../installation/index.js';
import type { Act, Job, Plate } from '../job/index.js';
import { plateFacts } from '../line/index.js';
import { adoption, planJob } from '../plan/index.js';
import { bareJob } from '../testing/jobs.js';
import { liveSteps } from '../procedure/index.js';
import { families } from '../testing/station.js';
import { signalAt, stateAt, type Trace } from '../trace/index.js';
import { linkLane, rehearse } from './index.js';

const drive = shippedProfile('ondulet-n');
const STOP_MS = 8000;

/** A drum of so many kg·m² on a steady load, stopped in so many seconds. */
function stopped(
  decelS: number,
  line: Plate['line'] = {},
  profile: Profile = drive,
  load: Partial<Plate['load']> = {},
): Job {
  const bare = bareJob({ decelS, accelS: 3, maxHz: 50 }, profile, families[profile.family].model);
  const volts = modelOf(profile, families[profile.family].model)?.ratedV ?? 400;
  const supply = volts < 300 ? ({ phases: 1, volts: { v: volts, u: 'V' } } as const) : {};
  const job: Job = {
    ...bare,
    plate: {
      ...bare.plate,
      motor: { ...bare.plate.motor, inertia: { v: 0.02, u: 'kg·m²' } },
      load: {
        kind: 'constant',
        torquePct: 30,
        gearRatio: 1,
        inertia: { v: 0.2, u: 'kg·m²' },
        ...load,
      },
      line,
      supply: { ...bare.plate.supply, ...supply },
    },
  };
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(plan.what);
  return { ...job, adopted: adoption(plan) };
}

/** Up to full speed and a stop from there at 8 s, and the supply away at the end. */
function stopOf(job: Job, profile: Profile = drive): Trace {
  const acts: Act[] = [
    { do: 'supplyOn', atMs: 0 },
    { do: 'dial', atMs: 1000, device: 'dial.speed', to: 1 },
    { do: 'turn', atMs: 2000, device: 'select.direction', position: 'forward' },
    { do: 'turn', atMs: STOP_MS, device: 'select.direction', position: 'off' },
    { do: 'supplyOff', atMs: 40_000 },
  ];
  return rehearse(install(job, profile), acts, 60_000);
}

const laneOf = (job: Job, trace: Trace, profile: Profile = drive): ((ms: number) => number) => {
  const link = linkOf(install(job, profile).device);
  if (!link) throw new Error('stops do not lift the link');
  const signals = [
    { id: 'link', of: { kind: 'device', id: 'device' }, unit: 'V', kind: 'value' },
  ] as const;
  const segments = [linkLane(trace, link)];
  return (ms) => signalAt({ signals, segments }, 'link', ms * 1000);
};

/** A time as the device takes it: no shorter. */
const upTo = (s: number): number => Math.ceil(s * 10) / 10;

const highest = (at: (ms: number) => number, from: number, to: number): number =>
  Math.max(...Array.from({ length: 400 }, (_, i) => at(from + ((to - from) * i) / 400)));

const shortestOf = (job: Job, profile: Profile = drive): number =>
  plateFacts(job, profile).find((f) => f.id === 'shortestStop')?.value as number;

describe('a stop that gives more back than the losses take up', () => {
  it('trips where the plate says it is too short, and coasts; the link stands at its trip then', () => {
    const job = stopped(0.5);
    expect(shortestOf(job)).toBeGreaterThan(1);
    const trace = stopOf(job);
    expect(stateAt(trace, 'device.fault', 20e6)).toBe('overvoltage');
    expect(stateAt(trace, 'shaft.state', (STOP_MS + 600) * 1000)).toBe('runsDown');
    const at = laneOf(job, trace);
    expect(highest(at, STOP_MS, STOP_MS + 600)).toBeCloseTo(800, 0);
    expect(at(STOP_MS - 100)).toBeCloseTo(Math.SQRT2 * 400, 3);
  });

  it('is told once, and its test asks for the stop that is wished, never for the fault', () => {
    const job = stopped(0.5);
    const rules = checkJob(job, drive).map((f) => f.rule);
    expect(rules.filter((r) => /linkTrips|decelShort/u.test(r))).toEqual(['stop.linkTrips']);
    const down = liveSteps(job, drive).find((s) => s.key === 'ramp.down');
    const expected = down?.expect as { nominal?: number } | undefined;
    expect(expected?.nominal).toBeCloseTo(0.5, 1);
    const slow = liveSteps(stopped(20), drive);
    const change = (steps: typeof slow): unknown =>
      steps.find((s) => s.key === 'direction.change')?.must;
    expect(change(slow)).toBeDefined();
    expect(change(liveSteps(job, drive))).toEqual(change(slow));
  });

  it('never trips at the shortest stop of the plate, whatever the load', () => {
    for (const kind of ['constant', 'linear', 'square'] as const)
      for (const torquePct of [0, 30, 90])
        for (const overhauls of [false, true]) {
          const load = { kind, torquePct, overhauls };
          const job = stopped(upTo(shortestOf(stopped(4, {}, drive, load))), {}, drive, load);
          const name = `${kind} ${torquePct} % ${overhauls}`;
          expect(stateAt(stopOf(job), 'device.fault', 39e6))
            .withContext(name)
            .toBe('none');
          expect(linkOf(install(job, drive).device))
            .withContext(name)
            .toBeUndefined();
        }
  });

  it('is held at the threshold of the chopper where a resistor is fitted, and comes to rest in its time', () => {
    const resistor: NonNullable<Plate['line']>['resistor'] = {
      ohm: { v: 80, u: 'Ω' },
      power: { v: 400, u: 'W' },
      thermalContact: true,
    };
    const job = stopped(1, { resistor });
    const trace = stopOf(job);
    expect(stateAt(trace, 'device.fault', 39e6)).toBe('none');
    expect(signalAt(trace, 'shaft.hz', (STOP_MS + 1100) * 1000)).toBeCloseTo(0, 6);
    const at = laneOf(job, trace);
    expect(highest(at, STOP_MS, STOP_MS + 1100)).toBeCloseTo(740, 0);
    expect(at(38_000)).toBeCloseTo(Math.SQRT2 * 400, 3);
  });

  it('is held where a separate unit switches, on a device without a chopper, and rises to the trip without one', () => {
    const bare = shippedProfile('marrowick-f');
    const resistor: NonNullable<Plate['line']>['resistor'] = {
      ohm: { v: 80, u: 'Ω' },
      power: { v: 400, u: 'W' },
      thermalContact: true,
    };
    const brakingUnit = { switchesAt: { v: 760, u: 'V' as const } };
    const held = stopped(1, { resistor, brakingUnit }, bare);
    const trace = stopOf(held, bare);
    expect(stateAt(trace, 'device.fault', 39e6)).toBe('none');
    expect(highest(laneOf(held, trace, bare), STOP_MS, STOP_MS + 1100)).toBeCloseTo(760, 0);
    const without = stopOf(stopped(1, { resistor }, bare), bare);
    expect(stateAt(without, 'device.fault', 39e6)).toBe('overvoltage');
  });

  it('runs down without supply no quicker than the plate of the device says', () => {
    const job = stopped(0.5);
    const at = laneOf(job, stopOf(job));
    expect(at(41_000)).toBeGreaterThan(60);
    expect(at(41_000)).toBeLessThan(Math.SQRT2 * 400);
    expect(at(45_000 + drive.dischargeS * 1000)).toBeCloseTo(60, 6);
    expect(at(-1)).toBe(0);
  });

  it('has no voltage while a device powers up on its control supply alone', () => {
    const link = linkOf(install(stopped(0.5), drive).device);
    if (!link) throw new Error('stops do not lift the link');
    const states = ['off', 'poweringUp', 'noMains', 'ready'];
    const of = { kind: 'device', id: 'device' } as const;
    const signals = [
      { id: 'device.state', of, unit: '', kind: 'state', states },
      { id: 'device.hz', of, unit: 'Hz', kind: 'value' },
    ] as const;
    const piece = (t: number[], y: number[]) => ({ t, y, dy: y.map(() => 0), ddy: y.map(() => 0) });
    const at = (y: number[], t: number): number => {
      const segments = [piece([0, 1e6, 2e6, 3e6], y), piece([0], [0])];
      const lane = linkLane({ signals, segments }, link);
      const value = { id: 'link', of, unit: 'V', kind: 'value' } as const;
      return signalAt({ signals: [value], segments: [lane] }, 'link', t);
    };
    const usual = Math.SQRT2 * 400;
    expect(at([0, 1, 2, 2], 1.5e6)).toBe(0);
    expect(at([0, 1, 2, 2], 2.5e6)).toBe(0);
    // Mains come later.
    expect(at([0, 1, 2, 3], 3.5e6)).toBeCloseTo(usual, 6);
    expect(at([0, 1, 3, 3], 1.5e6)).toBeCloseTo(usual, 6);
  });

  it('is told of every family that names the voltage at which it trips', () => {
    const told = Object.keys(families).filter((family) => {
      const profile = shippedProfile(family);
      const model = modelOf(profile, families[family].model);
      return model?.capacityUF !== undefined && profile.linkTripV !== undefined;
    });
    expect(told.length).toBeGreaterThan(3);
    for (const family of told) {
      const profile = shippedProfile(family);
      const job = stopped(0.2, {}, profile);
      expect(linkOf(install(job, profile).device))
        .withContext(family)
        .toBeDefined();
    }
  });
});
