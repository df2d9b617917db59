import { shippedProfile } from '../catalogue/index.js';
import { install, type HookPlace, type Installation } from '../installation/index.js';
import { timeOrder, type Act, type Job, type Scheme } from '../job/index.js';
import { arrangeFor } from '../plan/index.js';
import { actsOf, give, powerUp, READY_MS, startActs } from '../scheme/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { rehearse } from './index.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../trace/index.js';

const n = shippedProfile('ondulet-n');
const jobOf = (scheme: Partial<Scheme>): Job =>
  adopted(
    bareJob(
      {
        startBy: 'selector',
        directionBy: undefined,
        direction: 'forwardOnly',
        accelS: 1,
        decelS: 1,
        ...scheme,
      },
      n,
      'N0220',
    ),
    n,
  );

/** A job under acts; volts between landings and signals at times. */
class Run {
  private readonly installation: Installation;
  private readonly trace: Trace;
  constructor(
    job: Job,
    acts: readonly (Act | undefined)[],
    endMs: number,
    hooks: readonly HookPlace[] = [],
  ) {
    this.installation = install(job, n, { from: 'planned' }, { hooks });
    this.trace = rehearse(this.installation, timeOrder(actsOf(...acts)), endMs);
  }
  volts(a: string, b: string, ms: number): { dc: number; ac: number } | null {
    const [x, y] = [a, b].map((l) => this.installation.landings.indexOf(l));
    return voltsAt(this.trace, x, y, ms * 1000);
  }
  at = (signal: string, ms: number): number => signalAt(this.trace, signal, ms * 1000);
  state = (ms: number): string => stateAt(this.trace, 'device.state', ms * 1000);
}

describe('the supply', () => {
  const job = jobOf({});
  const a = arrangeFor(job, n);
  const running = [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS)];

  it('gives √3 between phases, the phase against N and PE, nothing when it is off', () => {
    const run = new Run(job, [...powerUp(a, 1), { do: 'supplyOff', atMs: 5000 }], 6000);
    expect(run.volts('supply:L1', 'supply:L2', 4000)?.ac).toBeCloseTo(400, 0);
    expect(run.volts('supply:L3', 'supply:PE', 4000)?.ac).toBeCloseTo(230.9, 0);
    expect(run.volts('supply:L1', 'supply:N', 5500)?.ac ?? 0).toBe(0);
  });

  it('with one phase gone a running drive trips, and a standing one does not', () => {
    const lost: Act = { do: 'supplyOff', atMs: 6000, phase: 'L2' };
    expect(new Run(job, [...running, lost], 7000).state(6500)).toBe('faulted');
    expect(new Run(job, [...powerUp(a, 1), lost], 7000).state(6500)).toBe('ready');
    expect(
      new Run(
        job,
        [...powerUp(a, 1), lost, { do: 'supplyOn', atMs: 6500, phase: 'L2' }],
        8000,
      ).volts('device:L1', 'device:L2', 7000)?.ac,
    ).toBeCloseTo(400, 0);
  });
});

describe('control supplies', () => {
  const job = jobOf({ estop: 'contactor' });
  const a = arrangeFor(job, n);

  it('a transformer gives its secondary with its regulation, and goes with its breaker', () => {
    const run = new Run(
      job,
      [...powerUp(a, 1), { do: 'turn', atMs: 5000, device: 'breaker.control', position: 'off' }],
      6000,
    );
    const open = run.volts('fuse.control:2', 'transformer.control:S2', 100)?.ac ?? 0;
    const loaded = run.volts('fuse.control:2', 'transformer.control:S2', 4000)?.ac ?? 0;
    expect(open).toBeCloseTo(230, 0);
    // The coil of 8 VA on 160 VA with 5 %: a quarter of a per cent.
    expect(loaded).toBeCloseTo(230 * (1 - 0.05 * (8 / 160)), 0);
    expect([run.at('contactor.line.on', 4900), run.at('contactor.line.on', 5100)]).toEqual([1, 0]);
  });

  it('stays on when only the main breaker opens, and can be switched off by itself', () => {
    const run = new Run(
      job,
      [
        ...powerUp(a, 1),
        { do: 'turn', atMs: 4000, device: 'breaker', position: 'off' },
        { do: 'supplyOff', atMs: 5000, device: 'transformer.control' },
      ],
      6000,
    );
    expect([run.at('contactor.line.on', 4900), run.at('contactor.line.on', 5100)]).toEqual([1, 0]);
  });

  it('a short behind its fuse blows the fuse and nothing else', () => {
    const hooks: HookPlace[] = [['fuse.control:2', 'transformer.control:S2']];
    const short: Act = {
      do: 'hook',
      atMs: 4000,
      a: 'fuse.control:2',
      b: 'transformer.control:S2',
      as: 'short',
    };
    const run = new Run(job, [...powerUp(a, 1), short], 7000, hooks);
    expect([
      run.at('fuse.control.blown', 3900),
      run.at('fuse.control.blown', 6900),
      run.at('contactor.line.on', 6900),
    ]).toEqual([0, 1, 0]);
  });

  it('a 24 V supply falls to its limit when it is shorted, and comes back', () => {
    const own = jobOf({ startStop: 'sealInRelay', startBy: undefined, latchSupply: 'own24' });
    const b = arrangeFor(own, n);
    const hook = (atMs: number, as: 'short' | 'off'): Act => ({
      do: 'hook',
      atMs,
      a: 'supply24:+',
      b: 'supply24:-',
      as,
    });
    const run = new Run(
      own,
      [
        ...powerUp(b, 1),
        ...startActs(b, 'forward', READY_MS),
        hook(6000, 'short'),
        hook(7000, 'off'),
      ],
      9000,
      [['supply24:+', 'supply24:-']],
    );
    expect(run.volts('supply24:+', 'supply24:-', 5000)?.dc).toBeCloseTo(24, 3);
    // 2.5 A into 50 mΩ.
    expect(run.volts('supply24:+', 'supply24:-', 6500)?.dc).toBeCloseTo(0.125, 2);
    expect([
      run.at('relay.sealIn.on', 5900),
      run.at('relay.sealIn.on', 6500),
      run.at('relay.sealIn.on', 8500),
    ]).toEqual([1, 0, 0]);
  });
});

describe('signals', () => {
  const at = (
    scheme: Partial<Scheme>,
    share: number,
    more: (Act | undefined)[] = [],
    hooks: HookPlace[] = [],
  ): Run => {
    const job = jobOf(scheme);
    const a = arrangeFor(job, n);
    return new Run(
      job,
      [...powerUp(a, share), ...startActs(a, 'forward', READY_MS), ...more],
      READY_MS + 4000,
      hooks,
    );
  };
  const END = READY_MS + 3900;

  it('0–10 V: half the signal is half the speed, less what 50 Ω lose on the input', () => {
    const run = at({ speed: 'voltage' }, 0.5);
    expect(run.volts('device:A1', 'device:AC', END)?.dc).toBeCloseTo((5 * 40_000) / 40_050, 3);
    expect(run.at('device.hz', END)).toBeCloseTo(24.97, 1);
  });

  it('4–20 mA: 12 mA on the burden is half the speed', () => {
    const run = at({ speed: 'current' }, 0.5);
    expect(run.volts('device:A1', 'device:AC', END)?.dc).toBeCloseTo(3, 3);
    expect(run.at('device.hz', END)).toBeCloseTo(25, 1);
  });

  it('a current signal on an input switched for voltage is full speed at any signal', () => {
    for (const share of [0, 0.5]) {
      const run = at({ speed: 'current' }, share, [
        { do: 'link', atMs: 50, link: 'S1', position: 'U' },
      ]);
      expect(run.volts('device:A1', 'device:AC', END)?.dc ?? 0)
        .withContext(String(share))
        .toBeGreaterThan(10);
      expect(run.at('device.hz', END)).withContext(String(share)).toBeCloseTo(50, 0);
    }
  });

  it('a voltage signal on an input switched for current is pulled down by the burden', () => {
    const run = at({ speed: 'voltage' }, 1, [{ do: 'link', atMs: 50, link: 'S1', position: 'I' }]);
    expect(run.volts('device:A1', 'device:AC', END)?.dc).toBeCloseTo((10 * 250) / 300, 1);
  });

  it('a lost live-zero signal trips where the settings say fault', () => {
    const job = jobOf({ speed: 'current' });
    const a = arrangeFor(job, n);
    const wire =
      Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === 'signal.plus')?.[0] ??
      '';
    const run = new Run(
      job,
      [
        ...powerUp(a, 0.5),
        ...startActs(a, 'forward', READY_MS),
        { do: 'breakWire', atMs: 6000, wire },
      ],
      7000,
    );
    expect([run.state(5900), run.state(6500)]).toEqual(['atSpeed', 'faulted']);
  });

  it('a battery at the input instead of the dial, and a calibrator in milliamperes, give their own speed', () => {
    const hooks: HookPlace[] = [['device:A1', 'device:AC']];
    const battery = at(
      { speed: 'keypad' },
      0,
      [{ do: 'hook', atMs: 100, a: 'device:A1', b: 'device:AC', as: 'volts', value: 4.6 }],
      hooks,
    );
    expect(battery.volts('device:A1', 'device:AC', END)?.dc).toBeCloseTo(4.6, 3);
    const loop = at(
      { speed: 'current' },
      0,
      [
        { do: 'breakWire', atMs: 50, wire: 'none' },
        { do: 'hook', atMs: 100, a: 'device:A1', b: 'device:AC', as: 'amps', value: 0.008 },
      ],
      hooks,
    );
    // 4 mA of the controller and 8 mA of the calibrator into 250 Ω.
    expect(loop.volts('device:A1', 'device:AC', END)?.dc).toBeCloseTo(3, 2);
  });
});

describe('a transistor output', () => {
  const job = jobOf({
    startStop: 'controller',
    startBy: undefined,
    controllerOutput: 'transistor',
  });
  const a = arrangeFor(job, n);

  it('drops half a volt when on and leaks half a milliampere when off', () => {
    const input = job.adopted?.assignments['run.forward'].at ?? '';
    const run = new Run(job, [...powerUp(a, 1), give(a, 'run.forward', READY_MS)], READY_MS + 2000);
    expect(run.volts(input, 'device:0E', READY_MS - 100)?.dc).toBeCloseTo(0.0005 * 4400, 2);
    expect(run.volts(input, 'device:0E', READY_MS + 1000)?.dc).toBeCloseTo(23.5, 1);
    expect(run.at('device.hz', READY_MS + 1900)).toBeGreaterThan(40);
  });
});
