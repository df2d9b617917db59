import fc from 'fast-check';
import { checkJob } from '../hazards/index.js';
import { install } from '../installation/index.js';
import type { Act, Job, Scheme } from '../job/index.js';
import { keyingFaults, planJob } from '../plan/index.js';
import { rehearse } from '../rehearsal/index.js';
import { signalAt, stateAt, voltsAt } from '../trace/index.js';
import {
  actsOf,
  arrange,
  give,
  powerUp,
  READY_MS,
  startActs,
  stopActs,
  take,
  type OperationId,
  type Direction,
} from '../scheme/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { say } from '../words/index.js';
import { liveSteps } from './live/index.js';

const profile = marrowick();
const both = { direction: 'forwardReverse' } as const;

/** Every arrangement that is planned by now, with the wires of its station counted by hand. */
const arrangements: Readonly<
  Record<string, { scheme: Partial<Scheme>; stationWires: number; startMethod: number }>
> = {
  'two-wire': {
    scheme: { startStop: 'twoWire', direction: 'forwardOnly' },
    stationWires: 2,
    startMethod: 0,
  },
  'two-wire, one selector': {
    scheme: { startStop: 'twoWire', ...both, directionBy: 'selector' },
    stationWires: 4,
    startMethod: 0,
  },
  'two-wire, two contacts': {
    scheme: { startStop: 'twoWire', ...both, directionBy: 'twoContacts' },
    stationWires: 4,
    startMethod: 0,
  },
  'run and direction': {
    scheme: { startStop: 'twoWire', ...both, directionBy: 'runAndDirection' },
    stationWires: 4,
    startMethod: 1,
  },
  'three-wire, fed separately': {
    scheme: { startStop: 'threeWire', direction: 'forwardOnly', stationFeed: 'separate' },
    stationWires: 4,
    startMethod: 2,
  },
  'three-wire, chained': {
    scheme: { startStop: 'threeWire', direction: 'forwardOnly', stationFeed: 'chained' },
    stationWires: 4,
    startMethod: 2,
  },
  'three-wire with direction': {
    scheme: { startStop: 'threeWire', ...both, stationFeed: 'separate' },
    stationWires: 6,
    startMethod: 2,
  },
  'three-wire with direction, chained': {
    scheme: { startStop: 'threeWire', ...both, stationFeed: 'chained' },
    stationWires: 6,
    startMethod: 2,
  },
  'two starts': {
    scheme: { startStop: 'threeWireTwoStarts', ...both, stationFeed: 'separate' },
    stationWires: 6,
    startMethod: 3,
  },
  'two starts, chained': {
    scheme: { startStop: 'threeWireTwoStarts', ...both, stationFeed: 'chained' },
    stationWires: 6,
    startMethod: 3,
  },
};

const jobOf = (scheme: Partial<Scheme>): Job =>
  adopted(bareJob({ speed: 'keypad', accelS: 2, decelS: 2, ...scheme }));
const cases = Object.entries(arrangements).map(([name, a]) => ({
  name,
  ...a,
  job: jobOf(a.scheme),
  arrangement: arrange(jobOf(a.scheme)),
}));

/** Runs acts on the job as planned; the keypad holds 40 Hz. */
function runs(job: Job, acts: readonly Act[], endMs: number): (ms: number) => number {
  const installation = install(job, profile, {
    from: 'snapshot',
    id: 'x',
    values: { ...plannedValues(job), '420': 40 },
  });
  const trace = rehearse(
    installation,
    [...acts].sort((x, y) => x.atMs - y.atMs),
    endMs,
  );
  return (ms) => signalAt(trace, 'device.hz', ms * 1000);
}
const plannedValues = (job: Job): Record<string, number> =>
  Object.fromEntries(
    Object.entries(job.adopted?.settings ?? {}).map(([code, s]) => [code, s.value as number]),
  );

describe('every arrangement', () => {
  for (const { name, job, arrangement, stationWires, startMethod } of cases) {
    const directions = (['forward', 'reverse'] as Direction[]).filter((d) => arrangement.starts[d]);
    const sign = { forward: 1, reverse: -1 };

    it(`${name}: is planned with the start method and the wires it needs`, () => {
      expect(job.adopted?.settings['310']?.value ?? 0).toBe(startMethod);
      const station = Object.values(job.adopted?.wires ?? {}).filter(
        (w) => w.class === 'controlDc',
      );
      expect(station.length).toBe(stationWires);
      expect(checkJob(job, profile).filter((f) => f.rule.startsWith('input.'))).toEqual([]);
    });

    it(`${name}: starts each way, runs on, and stops`, () => {
      for (const direction of directions) {
        const acts = [
          ...powerUp(arrangement, 0),
          ...startActs(arrangement, direction, READY_MS),
          ...stopActs(arrangement, direction, 8000),
        ];
        const hz = runs(job, acts, 14_000);
        expect([hz(READY_MS - 50), hz(7900), hz(13_900)].map(Math.round))
          .withContext(direction)
          .toEqual([0, 40 * sign[direction], 0]);
      }
    });

    it(`${name}: is keyed line by line at 0 Hz with every control worked, until command is handed over`, () => {
      const plan = planJob(job, profile);
      if (!plan.ok) throw new Error(plan.what);
      const found = Object.fromEntries(
        plan.keying.filter((l) => l.code).map((l) => [l.code as string, l.from as number]),
      );
      expect(keyingFaults(profile, found, plan.keying)).toEqual([]);
      const now: Record<string, number> = { ...plannedValues(job), ...found, '420': 40 };
      const held = actsOf(
        { do: 'supplyOn', atMs: 0 },
        ...arrangement.inputs
          .filter((f) => f.id !== arrangement.stops[0])
          .map((f) => give(arrangement, f.id as OperationId, READY_MS)),
      );
      for (const line of plan.keying.filter((l) => l.code && l.part !== 'handOver')) {
        now[line.code as string] = line.to as number;
        const trace = rehearse(
          install(job, profile, { from: 'snapshot', id: 'x', values: now }),
          held,
          6000,
        );
        expect(signalAt(trace, 'device.hz', 5_900_000))
          .withContext(line.key)
          .toBe(0);
      }
    });

    it(`${name}: is keyed with the halves of a pair one after the other`, () => {
      const plan = planJob(job, profile);
      if (!plan.ok) throw new Error(plan.what);
      const inPair = Object.values(profile.inputTasks)
        .filter((task) => task.needs !== undefined)
        .map((task) => task.code);
      const taskCodes = Object.values(profile.taskSettings);
      const given = plan.keying.filter((l) => l.code && taskCodes.includes(l.code) && l.to !== 0);
      const at = given.flatMap((l, i) => (inPair.includes(l.to as number) ? [i] : []));
      expect(at.length > 0).toBe(arrangement.givenBy === 'pulse');
      expect(at.every((i, k) => k === 0 || i === at[k - 1] + 1))
        .withContext(given.map((l) => `${l.code}=${String(l.to)}`).join(' '))
        .toBeTrue();
    });

    it(`${name}: every break of a station wire stops it or keeps it from starting, and none starts it`, () => {
      const stationWire = Object.values(job.adopted?.wires ?? {}).filter(
        (w) => w.class === 'controlDc',
      );
      for (const { number } of stationWire) {
        const quiet = runs(
          job,
          [...powerUp(arrangement, 0), { do: 'breakWire', atMs: READY_MS, wire: number }],
          6000,
        );
        expect(quiet(5900)).withContext(`${number} broken at rest`).toBe(0);
        const direction = directions[0];
        const acts: Act[] = [
          ...powerUp(arrangement, 0),
          ...startActs(arrangement, direction, READY_MS),
          { do: 'breakWire', atMs: 6000, wire: number },
          ...stopActs(arrangement, direction, 8000),
        ];
        expect(runs(job, acts, 14_000)(13_900))
          .withContext(`${number} broken while running: stop must still stop`)
          .toBe(0);
      }
    });

    it(`${name}: says what to test in words, each expectation from its own simulation`, () => {
      const steps = liveSteps(job, profile);
      expect(steps.map((s) => say(s.do)).filter((text) => text.includes('Dial'))).toEqual([]);
      expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
      for (const s of steps)
        for (const phrase of [s.do, s.must])
          expect(say(phrase))
            .withContext(s.key)
            .not.toMatch(/undefined|^\w+\.\w+$/u);
      const turning = steps
        .filter((s) => s.requirement?.id.startsWith('direction.'))
        .map((s) => s.expect?.kind === 'state' && s.expect.is);
      expect(turning).toEqual(directions);
      const dialled = liveSteps(
        adopted(bareJob({ ...arrangements[name].scheme, speed: 'dial' })),
        profile,
      );
      expect(dialled.filter((s) => s.key.startsWith('direction.')).map((s) => s.expect)).toEqual(
        steps.filter((s) => s.key.startsWith('direction.')).map((s) => s.expect),
      );
      expect(steps.some((s) => s.key === 'stop.wins')).toBe(arrangement.givenBy === 'pulse');
    });
  }

  it('names the wish for automatic restart that a start by button cannot meet', () => {
    const wished = (scheme: Partial<Scheme>) =>
      checkJob(jobOf({ ...scheme, speed: 'dial', powerReturn: 'restart' }), profile)
        .map((f) => f.rule)
        .filter((rule) => rule.startsWith('restart.'));
    expect(
      wished({ startStop: 'threeWire', direction: 'forwardOnly', stationFeed: 'separate' }),
    ).toEqual(['restart.notPossible']);
    expect(wished({ startStop: 'twoWire', direction: 'forwardOnly' })).toEqual([
      'restart.powerReturn',
      'restart.noWarning',
    ]);
  });

  it('with a pulse start never runs while the stop circuit is open, whatever is pressed', () => {
    const pulses = cases.filter((c) => c.arrangement.givenBy === 'pulse');
    fc.assert(
      fc.property(
        fc.constantFrom(...pulses),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 7000 }), fc.nat(3), fc.boolean()), {
          maxLength: 12,
        }),
        ({ job, arrangement }, presses) => {
          const [stop] = arrangement.stops;
          const others = (Object.keys(arrangement.operations) as OperationId[]).filter(
            (id) => id !== stop,
          );
          const acts = presses.flatMap(([at, i, down]) =>
            actsOf((down ? give : take)(arrangement, others[i % others.length], READY_MS + at)),
          );
          const held = actsOf(give(arrangement, stop, READY_MS));
          const hz = runs(job, [...powerUp(arrangement, 0), ...held, ...acts], 11_000);
          for (let ms = READY_MS; ms <= 11_000; ms += 100) expect(hz(ms)).toBe(0);
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('start held while stop is released', () => {
  const chained = cases.find((c) => c.name === 'three-wire, chained') as (typeof cases)[number];
  const separate = cases.find(
    (c) => c.name === 'three-wire, fed separately',
  ) as (typeof cases)[number];
  const accepted = {
    ...profile,
    policies: { ...profile.policies, startEdgeWithStopReturn: { fixed: 'accepted' as const } },
  };
  const lost = {
    ...profile,
    policies: { ...profile.policies, startEdgeWithStopReturn: { fixed: 'lost' as const } },
  };

  const heldThenReleased = ({ job, arrangement }: (typeof cases)[number], p = profile): number => {
    const acts = actsOf(
      ...powerUp(arrangement, 1),
      give(arrangement, 'start', READY_MS),
      give(arrangement, 'stop', 8000),
      take(arrangement, 'stop', 14_000),
    );
    const trace = rehearse(
      install({ ...job, scheme: job.scheme }, p, {
        from: 'snapshot',
        id: 'x',
        values: { ...plannedValues(job), '420': 40 },
      }),
      acts,
      20_000,
    );
    return Math.round(signalAt(trace, 'device.hz', 19_900_000));
  };

  it('differs between the two stations, and flips with the device’s policy', () => {
    expect([heldThenReleased(chained, accepted), heldThenReleased(chained, lost)]).toEqual([40, 0]);
    expect([heldThenReleased(separate, accepted), heldThenReleased(separate, lost)]).toEqual([
      0, 0,
    ]);
  });

  it('is a hazard exactly where it starts the motor, graver where people are at the machine', () => {
    const found = (
      c: (typeof cases)[number],
      p = profile,
      exposed: Scheme['exposed'] = 'atMachine',
    ) =>
      checkJob(
        {
          ...c.job,
          scheme: { ...c.job.scheme, exposed, speed: 'dial', dialOhm: { v: 5, u: 'kΩ' } },
        },
        p,
      )
        .filter((f) => f.rule === 'stop.releaseStarts')
        .map((f) => f.severity);
    const dialled = {
      ...chained,
      job: adopted({
        ...chained.job,
        scheme: { ...chained.job.scheme, speed: 'dial', dialOhm: { v: 5, u: 'kΩ' } },
      }),
    };
    const dialledApart = {
      ...separate,
      job: adopted({
        ...separate.job,
        scheme: { ...separate.job.scheme, speed: 'dial', dialOhm: { v: 5, u: 'kΩ' } },
      }),
    };
    expect([
      found(dialled, accepted),
      found(dialled, lost),
      found(dialled),
      found(dialledApart, accepted),
    ]).toEqual([['stop'], [], ['stop'], []]);
    expect(found(dialled, accepted, 'behindGuard')).toEqual(['warn']);
  });

  it('shows at the terminals: in the chained station both inputs fall together', () => {
    const at = ({ job, arrangement }: (typeof cases)[number]): string[] => {
      const installation = install(job, profile);
      const trace = rehearse(
        installation,
        actsOf(
          ...powerUp(arrangement, 0),
          give(arrangement, 'start', READY_MS),
          give(arrangement, 'stop', 4000),
        ),
        5000,
      );
      return ['stop', 'start'].map((id) => {
        const landing = installation.landings.indexOf(job.adopted?.assignments[id].at ?? '');
        const volts = [3500, 4500].map((ms) =>
          Math.round(voltsAt(trace, landing, installation.reference, ms * 1000)?.dc ?? NaN),
        );
        return `${id} ${volts.join(' then ')} V, ${stateAt(trace, 'device.state', 4_500_000)}`;
      });
    };
    expect(at(chained).map((s) => s.replace(/, .*/u, ''))).toEqual([
      'stop 24 then 0 V',
      'start 24 then 0 V',
    ]);
    expect(at(separate).map((s) => s.replace(/, .*/u, ''))).toEqual([
      'stop 24 then 0 V',
      'start 24 then 24 V',
    ]);
  });
});
