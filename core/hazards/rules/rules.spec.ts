import { shippedProfile, type Profile } from '../../catalogue/index.js';
import type { Job, Scheme } from '../../job/index.js';
import { adopted, bareJob, heavyLoad, marrowick } from '../../testing/jobs.js';
import { sayFinding } from '../../words/index.js';
import { plateFindings } from '../../line/index.js';
import { checkJob, hazardRules, schemeFindings } from '../index.js';

const n = shippedProfile('ondulet-n');
const micro = shippedProfile('ondulet-micro');
const t = shippedProfile('quernstone-t');
const models: Readonly<Record<string, string>> = {
  'marrowick-f': 'F02',
  'ondulet-n': 'N0220',
  'ondulet-micro': 'u15',
  'quernstone-t': 'T05',
};

/** A careful two-wire job, changed by what a case says. */
function jobOf(scheme: Partial<Scheme>, profile: Profile): Job {
  const careful: Partial<Scheme> = {
    startStop: 'twoWire',
    startBy: 'selector',
    direction: 'forwardOnly',
    directionBy: undefined,
    speed: 'dial',
    accelS: 2,
    decelS: 2,
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
  };
  const job = bareJob({ ...careful, ...scheme }, profile, models[profile.family]);
  const supply =
    profile.supply.phases === 1
      ? { phases: 1, volts: { v: 230, u: 'V' }, hz: { v: 50, u: 'Hz' } }
      : job.plate.supply;
  return adopted(
    { ...job, plate: { ...job.plate, supply: supply as Job['plate']['supply'] } },
    profile,
  );
}
const found = (
  scheme: Partial<Scheme>,
  profile: Profile = marrowick(),
  change: (job: Job) => Job = (job) => job,
): string[] =>
  schemeFindings(change(jobOf(scheme, profile)), profile).map((f) => `${f.severity} ${f.rule}`);

const threeWire: Partial<Scheme> = {
  startStop: 'threeWire',
  stationFeed: 'separate',
  startBy: undefined,
};
const withPolicy = (profile: Profile, name: string, value: string): Profile =>
  ({ ...profile, policies: { ...profile.policies, [name]: { fixed: value } } }) as Profile;
const withoutWire =
  (name: string) =>
  (job: Job): Job => {
    const wires = Object.fromEntries(
      Object.entries(job.adopted?.wires ?? {}).filter(([, w]) => w.function !== name),
    );
    return { ...job, adopted: { ...(job.adopted as NonNullable<Job['adopted']>), wires } };
  };
const withDevice =
  (id: string, params: Record<string, number | string | boolean>) =>
  (job: Job): Job => {
    const plan = job.adopted as NonNullable<Job['adopted']>;
    return {
      ...job,
      adopted: {
        ...plan,
        devices: {
          ...plan.devices,
          [id]: { ...plan.devices[id], params: { ...plan.devices[id].params, ...params } },
        },
      },
    };
  };

/** A wire of the job landed elsewhere; with `zero` the control transformer's earthed side is joined to the drive's 0 V too. */
function moved(
  job: Job,
  name: string,
  ends: { from?: string; to?: string },
  more: { zero?: boolean } = {},
): Job {
  const plan = job.adopted as NonNullable<Job['adopted']>;
  const [id, wire] = Object.entries(plan.wires).find(([, w]) => w.function === name) ?? [];
  if (!id || !wire) throw new Error(name);
  const joined: typeof plan.wires = more.zero
    ? {
        x1: {
          ...wire,
          number: 'x1',
          function: 'x',
          from: 'transformer.control:S2',
          to: 'device:0E',
        },
      }
    : {};
  return {
    ...job,
    adopted: { ...plan, wires: { ...plan.wires, ...joined, [id]: { ...wire, ...ends } } },
  };
}

/** A lamp of 0.3 Ω behind the latch's contact, on its own supply: ten times what a relay may carry. */
function overloaded(job: Job): Job {
  const plan = job.adopted as NonNullable<Job['adopted']>;
  const [, wire] = Object.entries(plan.wires).find(([, w]) => w.function === 'latch.coil') ?? [];
  if (!wire) throw new Error('latch.coil');
  const devices = {
    ...plan.devices,
    heavy: { kind: 'lamp', role: 'heavy', tag: 'E9', params: { volts: 24, ohm: 2 } },
    'supply24': { ...plan.devices['supply24'], params: { volts: 24, amps: 20 } },
  };
  const wires = {
    ...plan.wires,
    h1: { ...wire, number: 'h1', function: 'h1', from: 'relay.sealIn:14', to: 'heavy:X1' },
    h2: { ...wire, number: 'h2', function: 'h2', from: 'heavy:X2', to: 'supply24:-' },
  };
  return { ...job, adopted: { ...plan, devices, wires } };
}

interface Case {
  readonly rule: string;
  readonly raised: () => string[];
  /** The same job with what caused it put right. */
  readonly gone: () => string[];
}

/** Every rule: a job that raises it, and the remedy that takes it back. */
const cases: readonly Case[] = [
  {
    rule: 'stop restart.powerReturn',
    raised: () => found({ powerReturn: 'restart' }),
    gone: () => found({}),
  },
  {
    rule: 'warn restart.noWarning',
    raised: () => found({ powerReturn: 'restart', exposed: 'behindGuard' }),
    gone: () => found({ powerReturn: 'restart', exposed: 'behindGuard', startWarningS: 3 }),
  },
  {
    rule: 'warn restart.notPossible',
    raised: () => found({ ...threeWire, powerReturn: 'restart' }),
    gone: () => found({ powerReturn: 'restart' }),
  },
  {
    rule: 'stop latch.outlivesPower',
    raised: () => found({ startStop: 'sealInRelay', latchSupply: 'own24', powerReturn: 'restart' }),
    gone: () => found({ startStop: 'sealInRelay', latchSupply: 'drive24', powerReturn: 'restart' }),
  },
  {
    rule: 'stop stop.releaseStarts',
    raised: () =>
      found(
        { ...threeWire, stationFeed: 'chained' },
        withPolicy(n, 'startEdgeWithStopReturn', 'accepted'),
      ),
    gone: () => found({ ...threeWire }, withPolicy(n, 'startEdgeWithStopReturn', 'accepted')),
  },
  {
    rule: 'stop condition.returnStarts',
    raised: () => found({ interlocks: ['guard'] }),
    gone: () => found({ ...threeWire, interlocks: ['guard'] }),
  },
  {
    rule: 'stop place.takeoverStarts',
    raised: () => found({ localRemote: true }, withPolicy(n, 'onTakeover', 'followLevel')),
    gone: () => found({ localRemote: true }, n),
  },
  {
    rule: 'stop place.stopIgnored',
    raised: () => found({ ...threeWire, localRemote: true }, t),
    gone: () =>
      found({ ...threeWire, localRemote: true }, withPolicy(t, 'terminalStopUnderKeypad', 'acts')),
  },
  {
    rule: 'warn estop.undervoltage',
    raised: () => found({ estop: 'contactor' }),
    gone: () => found({ estop: 'contactorInhibit' }),
  },
  {
    rule: 'stop estop.ordinaryInput',
    raised: () => found({ estop: 'outputInhibit' }),
    gone: () => found({ estop: 'contactorInhibit' }),
  },
  {
    rule: 'warn estop.oneChannel',
    raised: () => found({ estop: 'safeTorqueOffOneContact' }, n),
    gone: () => found({ estop: 'safeTorqueOff' }, n),
  },
  {
    rule: 'warn estop.overhauls',
    raised: () =>
      found({ estop: 'safeTorqueOff' }, n, (job) => ({
        ...job,
        plate: { ...job.plate, load: { ...job.plate.load, overhauls: true } },
      })),
    gone: () => found({ estop: 'safeTorqueOff' }, n),
  },
  {
    rule: 'warn reset.starts',
    raised: () => found({}, micro),
    gone: () => found({}, withPolicy(micro, 'onFaultReset', 'needFreshEdge')),
  },
  {
    rule: 'warn directions.releasedToOne',
    raised: () => found({ direction: 'forwardReverse', directionBy: 'twoContacts' }),
    gone: () => found({ direction: 'forwardReverse', directionBy: 'selector' }),
  },
  {
    rule: 'advise contactor.normalStops',
    raised: () => found({ startStop: 'lineContactor' }),
    gone: () => found({}),
  },
  {
    rule: 'advise lamp.saysLess',
    raised: () => found({ ...threeWire, lamps: ['stopReleased'] }),
    gone: () => found({ ...threeWire, lamps: ['running'] }),
  },
  {
    rule: 'stop input.doesNotSwitch',
    raised: () => found({ ...threeWire }, n, withoutWire('start')),
    gone: () => found({ ...threeWire }, n),
  },
  {
    rule: 'warn reference10.overload',
    raised: () => found({}, n, withDevice('dial.speed', { ohm: 470 })),
    gone: () => found({}, n, withDevice('dial.speed', { ohm: 4700 })),
  },
  {
    rule: 'stop supply24.overload',
    raised: () =>
      found(
        { startStop: 'sealInRelay', latchSupply: 'drive24' },
        n,
        withDevice('relay.sealIn', { ohm: 60 }),
      ),
    gone: () => found({ startStop: 'sealInRelay', latchSupply: 'drive24' }, n),
  },
  {
    rule: 'warn input.zeroSide',
    raised: () => found({ contactsSwitch: 'zeroVolt' }, n),
    gone: () => found({ contactsSwitch: 'plus24' }, n),
  },
  {
    rule: 'stop stop.linkTrips',
    raised: () => found({}, n, (job) => heavyLoad(job)),
    gone: () => found({}, n, (job) => heavyLoad(job, 60)),
  },
  {
    rule: 'stop contact.overload',
    raised: () => found({ startStop: 'sealInRelay', latchSupply: 'own24' }, n, overloaded),
    gone: () => found({ startStop: 'sealInRelay', latchSupply: 'own24' }, n),
  },
  {
    rule: 'stop damage.mainsAtControl',
    raised: () =>
      found({ estop: 'contactor' }, n, (job) =>
        moved(job, 'run.forward', { from: 'fuse.control:2' }, { zero: true }),
      ),
    gone: () => found({ estop: 'contactor' }, n),
  },
  {
    rule: 'stop pe.switched',
    raised: () => found({}, n, (job) => moved(job, 'motor.PE', { from: 'contact.forward:13' })),
    gone: () => found({}, n),
  },
  {
    rule: 'warn policy.unknown',
    raised: () => found({ ...threeWire, stationFeed: 'chained' }),
    gone: () => found({ ...threeWire }),
  },
];

describe('hazard rules', () => {
  for (const { rule, raised, gone } of cases) {
    it(`${rule} is raised by what causes it, and taken back by its remedy`, () => {
      expect(raised()).toContain(rule);
      expect(gone()).not.toContain(rule);
    });
  }

  it('find nothing in the careful job of any family but the follow-up of its own policies', () => {
    expect([found({}), found({}, n), found({}, t)]).toEqual([[], [], []]);
    expect(found({}, micro)).toEqual(['warn reset.starts', 'advise input.zeroSide']);
  });

  it('grade the same hazard by who can be there', () => {
    const graded = (['nobody', 'behindGuard', 'atMachine'] as const).map((exposed) =>
      found({ powerReturn: 'restart', exposed }).find((f) => f.endsWith('powerReturn')),
    );
    expect(graded).toEqual([
      'advise restart.powerReturn',
      'warn restart.powerReturn',
      'stop restart.powerReturn',
    ]);
  });

  it('simulate what a profile does not know every way, and tell the worse', () => {
    const unknown = {
      ...n,
      policies: {
        ...n.policies,
        onTakeover: 'unknown' as const,
        startEdgeWithStopReturn: 'unknown' as const,
      },
    };
    expect(found({ localRemote: true }, unknown)).toContain('stop place.takeoverStarts');
    expect(found({ ...threeWire, stationFeed: 'chained' }, unknown)).toContain(
      'stop stop.releaseStarts',
    );
    expect(found({ ...threeWire, stationFeed: 'separate' }, unknown)).not.toContain(
      'stop stop.releaseStarts',
    );
  });

  it('are silent while how it starts and stops is not said', () => {
    const job = jobOf({ powerReturn: 'restart' }, marrowick());
    expect(
      schemeFindings({ ...job, scheme: { ...job.scheme, startStop: undefined } }, marrowick()),
    ).toEqual([]);
  });

  it('each state where they are put right and what is at stake, in one rule only', () => {
    const known = hazardRules.flatMap((r) => Object.keys(r.finds));
    expect(new Set(known).size).toBe(known.length);
    for (const { rule } of cases) {
      const stated = hazardRules.find((r) => rule.split(' ')[1] in r.finds);
      expect(['scheme', 'land', undefined]).withContext(rule).toContain(stated?.stage);
      if (!/ (plan|decision)\./u.test(rule)) expect(stated).withContext(rule).toBeDefined();
    }
    const job = jobOf({}, marrowick());
    const long = {
      ...job.plate,
      cable: { ...job.plate.cable, length: { v: 400, u: 'm' as const } },
    };
    const plates = plateFindings({ ...job, plate: long }, marrowick());
    expect(plates.length).toBeGreaterThan(0);
    expect(plates.every((f) => f.stage === 'plate')).toBeTrue();
  });

  it('change their basis when what they rest on changes, so that an acceptance does not outlive it', () => {
    const basis = (scheme: Partial<Scheme>): string =>
      schemeFindings(jobOf({ powerReturn: 'restart', ...scheme }, marrowick()), marrowick())[0]
        .basis;
    expect(basis({})).toBe(basis({}));
    expect(basis({ exposed: 'behindGuard' })).not.toBe(basis({}));
  });

  it('name the device by its tag on the panel', () => {
    const [finding] = schemeFindings(jobOf({ powerReturn: 'restart' }, marrowick()), marrowick());
    expect(sayFinding(finding).what).toBe(
      'If power returns while S1 is closed, the motor starts by itself 0.9 s later.',
    );
  });

  it('says that a guard opens long before the machine stands, and nothing where it stands at once or is not known', () => {
    const guarded = (inertia: number | undefined, stopMode: 'ramp' | 'coast') =>
      found({ interlocks: ['guard'], stopMode, decelS: 1 }, marrowick(), (job) => ({
        ...job,
        plate: {
          ...job.plate,
          load: {
            ...job.plate.load,
            ...(inertia === undefined ? {} : { inertia: { v: inertia, u: 'kg·m²' } }),
          },
          ...(inertia === undefined ? { motor: { ...job.plate.motor, inertia: undefined } } : {}),
        } as Job['plate'],
      })).filter((rule) => rule.includes('guard.turnsOn'));
    expect(guarded(400, 'coast')).toEqual(['warn guard.turnsOn']);
    expect(guarded(0.85, 'ramp')).toEqual([]);
    expect(guarded(0.01, 'coast')).toEqual([]);
  });

  it('says that a coil which the device switches has nothing across it, once its suppressor is taken away', () => {
    const unsuppressed = (change: (job: Job) => Job = (job) => job): string[] =>
      found({ brakeRelease: true, estop: 'contactor' }, marrowick(), change).filter((rule) =>
        rule.includes('coil.unsuppressed'),
      );
    expect(unsuppressed()).toEqual([]);
    const bare = (job: Job): Job => {
      const { adopted: plan } = job;
      if (!plan) return job;
      const devices = Object.fromEntries(
        Object.entries(plan.devices).map(([id, d]) => {
          const { suppressor: _suppressor, ...params } = d.params;
          return [id, { ...d, params }];
        }),
      );
      return { ...job, adopted: { ...plan, devices } };
    };
    // The line contactor is switched by buttons: only the relay of the brake hangs on a contact of the device.
    expect(unsuppressed(bare)).toEqual(['advise coil.unsuppressed']);
  });
});

describe('colours as they were really used', () => {
  const job = adopted(bareJob());
  const wireOf = (kind: string): string =>
    Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.class === kind)?.[0] ?? '';
  const found = (practice: Job['practice'], kind: string, colour: string): unknown[] =>
    checkJob({ ...job, practice, asUsed: { [wireOf(kind)]: { colour } } }, marrowick())
      .filter((f) => f.rule === 'conductor.colourUsed')
      .map((f) => f.args['is']);

  it('are judged where a colour is kept for one use, and nowhere else', () => {
    expect(found('IEC', 'pe', 'black')).toEqual(['notProtective']);
    expect(found('IEC', 'pe', 'green-yellow')).toEqual([]);
    expect(found('IEC', 'pe', 'green')).toEqual(['notProtective']);
    expect(found('NFPA', 'pe', 'green')).toEqual([]);
    expect(found('IEC', 'controlDc', 'green/yellow')).toEqual(['keptForEarth']);
    expect(found('NFPA', 'controlDc', 'green')).toEqual(['keptForEarth']);
    expect(found('IEC', 'controlDc', 'green')).toEqual([]);
    for (const colour of ['red', 'violet', 'my own'])
      expect(found('IEC', 'controlDc', colour)).toEqual([]);
  });

  it('change nothing of the plan, and say nothing of a wire that is gone', () => {
    const used = { ...job, asUsed: { [wireOf('controlDc')]: { colour: 'red', core: '7' } } };
    expect(checkJob(used, marrowick()).map((f) => f.key)).toEqual(
      checkJob(job, marrowick()).map((f) => f.key),
    );
    const gone = { ...job, asUsed: { w0: { colour: 'green-yellow' } } };
    expect(checkJob(gone, marrowick()).some((f) => f.rule === 'conductor.colourUsed')).toBeFalse();
  });
});
