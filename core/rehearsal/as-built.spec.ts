import { shippedProfile } from '../catalogue/index.js';
import {
  looseJoints,
  potentialsOf,
  singleFaults,
  switchFault,
  type SwitchedFault,
} from '../faults/index.js';
import {
  applyFault,
  asBuilt,
  asPlanned,
  install,
  looseJoint,
  type Installation,
} from '../installation/index.js';
import {
  emptyJob,
  faultKey,
  hashOf,
  type Act,
  type AdoptedWire,
  type Fault,
  type Job,
} from '../job/index.js';
import { adopted, bareJob, builtWith, marrowick } from '../testing/jobs.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../trace/index.js';
import type { TimedAct } from './engine-state.js';
import { Engine } from './engine.js';
import { rehearse, timedActs } from './script.js';
import { whyNotRunning } from './why.js';

const profile = marrowick();
const job = adopted(
  bareJob({ startBy: 'levelContact', direction: 'forwardOnly', stationLength: { v: 10, u: 'm' } }),
);
const deviating = (...actual: Fault[]): Job => builtWith(job, ...actual);
const start: Act[] = [
  { do: 'supplyOn', atMs: 0 },
  { do: 'dial', atMs: 100, device: 'dial.speed', to: 1 },
  { do: 'press', atMs: 3000, device: 'contact.forward' },
  { do: 'release', atMs: 12_000, device: 'contact.forward' },
];
const run = (
  j: Job,
  acts = start,
  from: Parameters<typeof install>[2] = { from: 'planned' },
): Trace => rehearse(install(j, profile, from), acts, 20_000);
const hz = (trace: Trace, ms: number): number => signalAt(trace, 'device.hz', ms * 1000);
const wireOf = (what: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === what)?.[0] ?? '';
const at =
  job.adopted?.assignments['forward']?.at ?? Object.values(job.adopted?.assignments ?? {})[0].at;
/** Level of the run input. */
const input = (trace: Trace, ms: number): number =>
  signalAt(trace, `device.${at.slice(at.indexOf(':') + 1)}`, ms * 1000);

describe('a panel as it is built', () => {
  it('is the plan where nothing was found otherwise, and is rehearsed as it was found', () => {
    expect(asBuilt(job, profile)).toEqual(asPlanned(job, profile));
    expect(hz(run(job), 11_000)).toBeCloseTo(50, 0);
    const wire = Object.entries(job.adopted?.wires ?? {}).find(
      ([, w]) => w.to === at || w.from === at,
    )?.[0] as string;
    expect(hz(run(deviating({ kind: 'open', wire })), 11_000)).toBe(0);
    const welded = deviating({
      kind: 'stuck',
      device: 'contact.forward',
      contact: '13',
      is: 'closed',
    });
    expect([input(run(job), 2500), input(run(welded), 2500), input(run(welded), 15_000)]).toEqual([
      0, 1, 1,
    ]);
  });

  it('with a wire on another terminal does there what that terminal does', () => {
    const wire = Object.entries(job.adopted?.wires ?? {}).find(
      ([, w]) => w.to === at || w.from === at,
    ) as [string, AdoptedWire];
    const end = wire[1].to === at ? 'to' : 'from';
    const other = Object.entries(profile.terminals).find(
      ([t, spec]) => spec.kind === 'digitalInput' && `device:${t}` !== at,
    )?.[0];
    const mislanded = deviating({ kind: 'landed', wire: wire[0], end, at: `device:${other}` });
    const trace = run(mislanded);
    expect(hz(trace, 11_000)).toBe(0);
    expect(signalAt(trace, `device.${other}`, 11_000_000)).toBe(1);
    expect(signalAt(run(job), `device.${other}`, 11_000_000)).toBe(0);
  });

  it('with another setting or a make contact for a break does what these do', () => {
    expect(hz(run(deviating({ kind: 'setting', code: '212', value: 20 })), 5000)).toBeLessThan(
      hz(run(job), 5000) / 2,
    );
    const turned = deviating({ kind: 'wrongContact', device: 'contact.forward', contact: '13' });
    expect([input(run(turned), 2900), input(run(turned), 11_000)]).toEqual([1, 0]);
  });

  it('with a dead phase, a worn wiper or a loose source says so by what it does', () => {
    const phase = run(deviating({ kind: 'part', device: 'supply', what: 'phase', which: 'L2' }));
    expect(hz(phase, 11_000)).toBe(0);
    const wiper = run(deviating({ kind: 'part', device: 'dial.speed', what: 'wiper' }));
    expect(hz(wiper, 11_000)).toBeLessThan(5);
  });

  it('of any single fault gives the same trace as the fault as a switch in the planned network', () => {
    const healthy = install(job, profile);
    const faults = singleFaults(asPlanned(job, profile), potentialsOf(healthy));
    expect(faults.length).toBeGreaterThan(12);
    const switchable = switchFault(
      healthy,
      faults.map((f) => f.fault),
    );
    for (const { fault } of faults) {
      const built = install(job, profile, undefined, {
        panel: applyFault(asPlanned(job, profile), fault),
      });
      const engine = new Engine(switchable.installation);
      const i = switchable.switchOf(fault) as number;
      engine.runTo(20e6, [
        { t: 0, act: { do: 'switch', atMs: 0, switch: i, on: true } },
        ...timedActs(start),
      ]);
      const other = rehearse(built, start, 20_000);
      for (const ms of [500, 2900, 4000, 11_000, 13_000, 19_000]) {
        const us = ms * 1000;
        expect(signalAt(engine.trace, 'device.hz', us))
          .withContext(`${faultKey(fault)} at ${ms}`)
          .toBeCloseTo(signalAt(other, 'device.hz', us), 2);
        expect(stateAt(engine.trace, 'device.state', us))
          .withContext(faultKey(fault))
          .toBe(stateAt(other, 'device.state', us));
      }
    }
  });

  it('with a loose joint leaves its terminal alone and goes on feeding what lies behind, for every joint as a switch too', () => {
    const pulse = adopted(
      bareJob({ startStop: 'threeWire', stationFeed: 'separate', startBy: undefined }),
    );
    const planned = asPlanned(pulse, profile);
    const healthy = install(pulse, profile);
    const joints = looseJoints(planned);
    expect(joints.map((j) => j.key)).toContain('loose:button.start:13');
    const acts: Act[] = [
      { do: 'supplyOn', atMs: 0 },
      { do: 'dial', atMs: 100, device: 'dial.speed', to: 1 },
      { do: 'press', atMs: 3000, device: 'button.start' },
      { do: 'release', atMs: 3400, device: 'button.start' },
    ];
    for (const { fault, key } of joints) {
      if (fault.kind !== 'loose') continue;
      const { opens, joins } = looseJoint(planned, fault.at);
      const parts = [
        ...opens.map((wire): SwitchedFault => ({ kind: 'open', wire })),
        ...joins.map(({ a, b }): SwitchedFault => ({ kind: 'short', a, b })),
      ];
      const switchable = switchFault(healthy, parts);
      const engine = new Engine(switchable.installation);
      const thrown = parts.map((p): TimedAct => {
        const i = switchable.switchOf(p) as number;
        return { t: 0, act: { do: 'switch', atMs: 0, switch: i, on: true } };
      });
      engine.runTo(12e6, [...thrown, ...timedActs(acts)]);
      const built = install(pulse, profile, undefined, { panel: applyFault(planned, fault) });
      const other = rehearse(built, acts, 12_000);
      for (const us of [2_900_000, 3_300_000, 11_000_000])
        expect(signalAt(engine.trace, 'device.hz', us))
          .withContext(`${key} at ${us}`)
          .toBeCloseTo(signalAt(other, 'device.hz', us), 2);
      if (fault.at !== 'button.start:13') continue;
      const volts = (landing: string): number => {
        const at = built.landings.indexOf(landing);
        return voltsAt(other, at, built.reference, 3_300_000)?.dc ?? NaN;
      };
      expect(signalAt(other, 'device.hz', 11_000_000)).toBe(0);
      expect(Math.abs(volts('button.stop:12'))).toBeGreaterThan(20);
    }
  });

  it('leaves the planned panel as it is, and changes nothing for what is not there', () => {
    const before = asPlanned(job, profile);
    const hash = hashOf(before);
    applyFault(before, { kind: 'open', wire: wireOf('motor.U') });
    const nothing: Fault[] = [
      { kind: 'landed', wire: 'none', end: 'to', at: 'device:IN1' },
      { kind: 'swapped', wires: ['none', 'other'], ends: ['to', 'to'] },
    ];
    for (const fault of nothing) expect(hashOf(applyFault(before, fault))).toBe(hash);
    expect(hashOf(before)).toBe(hash);
  });
});

describe('contacts and keys', () => {
  it('of one switch may part: the first moves at once, the others after the lag', () => {
    const two = adopted(
      bareJob({ directionBy: 'selector', startBy: 'selector', direction: 'forwardReverse' }),
    );
    const [id, selector] = Object.entries(two.adopted?.devices ?? {}).find(([, d]) =>
      d.kind.startsWith('selector'),
    ) as [string, { kind: string }];
    expect(selector.kind).toBe('selectorReverseOffForward');
    const acts: Act[] = [
      { do: 'supplyOn', atMs: 0 },
      { do: 'turn', atMs: 2000, device: id, position: 'reverse' },
      { do: 'turn', atMs: 4000, device: id, position: 'forward', first: '23', lagMs: 80 },
    ];
    const installation = install(two, profile);
    const trace = rehearse(installation, acts, 6000);
    const contact = (ms: number): readonly [number, number] => {
      const inputs = installation.device.inputs.slice(0, 2);
      return inputs.map((i) => signalAt(trace, `device.${i.terminal}`, ms * 1000)) as never;
    };
    expect(contact(3900).filter((x) => x === 1).length).toBe(1);
    expect(contact(4500)).not.toEqual(contact(3900));
    expect(contact(4500).filter((x) => x === 1).length).toBe(1);
    // Between the two moments both or none of the contacts are closed.
    expect(contact(4060).filter((x) => x === 1).length).not.toBe(1);
  });

  it('of the keypad move its frequency up and down while they are held', () => {
    const keypad = adopted(
      bareJob({ speed: 'keypad', startBy: 'levelContact', direction: 'forwardOnly' }),
    );
    const acts: Act[] = [
      { do: 'supplyOn', atMs: 0 },
      { do: 'press', atMs: 2000, device: 'contact.forward' },
      { do: 'key', atMs: 3000, key: 'up', down: true },
      { do: 'key', atMs: 6000, key: 'up', down: false },
      { do: 'key', atMs: 12_000, key: 'down', down: true },
      { do: 'key', atMs: 13_000, key: 'down', down: false },
    ];
    const trace = rehearse(install(keypad, profile), acts, 20_000);
    const [low, high, less] = [2900, 11_900, 19_900].map((ms) => hz(trace, ms));
    expect(high).toBeGreaterThan(low + 1);
    expect(less).toBeLessThan(high);
    expect(less).toBeGreaterThan(low);
  });
});

describe('a soft starter', () => {
  const starter = shippedProfile('pendrift-s');
  const wires: readonly (readonly [string, string, AdoptedWire['class']])[] = [
    ['supply:L1', 'device:1L1', 'mains'],
    ['supply:L2', 'device:3L2', 'mains'],
    ['supply:L3', 'device:5L3', 'mains'],
    ['supply:PE', 'device:PE', 'pe'],
    ['device:2T1', 'motor:U', 'motor'],
    ['device:4T2', 'motor:V', 'motor'],
    ['device:6T3', 'motor:W', 'motor'],
    ['supply:L1', 'device:Y1', 'controlAc'],
    ['supply:N', 'device:Y2', 'controlAc'],
    ['supply:L1', 'button.stop:11', 'controlAc'],
    ['button.stop:12', 'device:SP', 'controlAc'],
    ['button.stop:12', 'button.start:13', 'controlAc'],
    ['button.start:14', 'device:ST', 'controlAc'],
  ];
  const part = (kind: string, tag: string) => ({ kind, role: tag, tag, params: {} });
  const bare = emptyJob({
    id: '11111111-1111-4111-8111-111111111111',
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'S-1',
    machine: 'crusher',
    practice: 'IEC',
    profile: { family: starter.family, model: 'S75', version: '1', sha256: hashOf(starter) },
  });
  const wired: Job = {
    ...bare,
    plate: { ...bareJob().plate },
    adopted: {
      device: 'device',
      devices: {
        device: part('starter', 'T1'),
        supply: part('supplyThreePhase', 'X0'),
        motor: part('motor', 'M1'),
        'button.stop': part('stopButton', 'S2'),
        'button.start': part('startButton', 'S3'),
      },
      wires: Object.fromEntries(
        wires.map(([from, to, wireClass], i) => [
          `w${i}`,
          {
            from,
            to,
            class: wireClass,
            number: String(i + 1),
            colour: 'black',
            size: { mm2: 1.5 },
            lengthM: 3,
            potential: from,
            function: 'hand',
            origin: 'person',
          } as AdoptedWire,
        ]),
      ),
      assignments: {},
      links: {},
      settings: {},
      retired: {},
      planHash: '',
      coreVersion: '',
    },
  };
  const between = (i: Installation, trace: Trace, a: string, b: string, ms: number) =>
    voltsAt(trace, i.landings.indexOf(a), i.landings.indexOf(b), ms * 1000)?.ac ?? null;

  it('wired by hand installs and is solved, with every voltage, and feeds its motor until it is stopped', () => {
    const installation = install(wired, starter);
    const acts: Act[] = [
      { do: 'supplyOn', atMs: 0 },
      { do: 'press', atMs: 3000, device: 'button.start' },
      { do: 'release', atMs: 3500, device: 'button.start' },
      { do: 'press', atMs: 5000, device: 'button.stop' },
    ];
    const trace = rehearse(installation, acts, 8000);
    const v = (a: string, b: string, ms: number) => between(installation, trace, a, b, ms);
    expect(v('device:1L1', 'device:3L2', 2000)).toBeCloseTo(400, -1);
    expect(v('device:Y1', 'device:Y2', 2000)).toBeCloseTo(231, -1);
    expect(v('device:SP', 'device:Y2', 2000)).toBeCloseTo(231, -1);
    expect(v('device:ST', 'device:Y2', 2000)).toBeCloseTo(0, 0);
    expect(v('device:ST', 'device:Y2', 3200)).toBeCloseTo(231, -1);
    expect(v('device:SP', 'device:Y2', 6000)).toBeCloseTo(0, 0);
    expect(
      ['2000', '3200', '7000'].map((ms) => stateAt(trace, 'device.state', Number(ms) * 1000)),
    ).toEqual(['ready', 'ramping', 'ready']);
    expect(stateAt(trace, 'device.state', 100_000)).toBe('startingUp');
    expect(signalAt(trace, 'device.ST', 3_200_000)).toBe(1);
    for (const s of trace.solutions) expect([...s.volts].every(Number.isFinite)).toBeTrue();
    const engine = new Engine(installation);
    engine.runTo(3_200_000, timedActs(acts));
    // At first the voltage is too low for this load: it hums, and that is what Why says.
    const hums = whyNotRunning(installation, engine, 3_200_000);
    expect([hums.running, hums.conditions.find((c) => !c.met)?.code]).toEqual([false, 'hums']);
    expect(signalAt(trace, 'device.amps', 3_200_000)).toBeGreaterThan(10);
    const stopped = new Engine(installation);
    stopped.runTo(6_000_000, timedActs(acts));
    const { running, conditions } = whyNotRunning(installation, stopped, 6_000_000);
    expect([running, conditions.find((c) => !c.met)?.code]).toEqual([false, 'stop']);
  });

  it('without its control supply is dark, whatever its mains are', () => {
    const dark: Job = {
      ...wired,
      deviations: {
        d: {
          ord: 1,
          where: { kind: 'wire', id: 'w7' },
          actual: { kind: 'open', wire: 'w7' },
          why: 'not landed',
        },
      },
    };
    const trace = rehearse(install(dark, starter), [{ do: 'supplyOn', atMs: 0 }], 5000);
    expect(stateAt(trace, 'device.state', 4_000_000)).toBe('off');
  });
});
