import fc from 'fast-check';
import { install } from '../installation/index.js';
import type { Act, Job } from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { rehearse } from './script.js';
import { Session } from './session.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../trace/index.js';

const job = adopted(bareJob());
const installation = install(job, marrowick());
const turn = (atMs: number, position: string): Act => ({
  do: 'turn',
  atMs,
  device: 'select.direction',
  position,
});
const on: Act[] = [
  { do: 'supplyOn', atMs: 0 },
  { do: 'dial', atMs: 100, device: 'dial.speed', to: 1 },
];
const hz = (t: Trace, ms: number): number => signalAt(t, 'device.hz', ms * 1000);

/** Everything a trace says, without the shared arrays: equal text means the same bits. */
function bits(t: Trace, endUs = Infinity): string {
  const cut = t.segments.map((s) =>
    s.t.flatMap((at, i) => (at <= endUs ? [[at, s.y[i], s.dy[i], s.ddy[i]]] : [])),
  );
  const byId = t.signals
    .map((s, i) => [s.id, cut[i]] as const)
    .sort(([x], [y]) => (x < y ? -1 : 1));
  return JSON.stringify([
    byId,
    t.instants.t.flatMap((at, i) =>
      at <= endUs ? [[at, Array.from(t.solutions[t.instants.solution[i]].volts)]] : [],
    ),
  ]);
}

const randomActs = fc.array(
  fc.oneof(
    fc.record({
      do: fc.constant('turn' as const),
      atMs: fc.nat(20_000),
      device: fc.constant('select.direction'),
      position: fc.constantFrom('forward', 'off', 'reverse'),
    }),
    fc.record({
      do: fc.constant('dial' as const),
      atMs: fc.nat(20_000),
      device: fc.constant('dial.speed'),
      to: fc.integer({ min: 0, max: 20 }).map((x) => x / 20),
    }),
    fc.record({
      do: fc.constantFrom('supplyOn' as const, 'supplyOff' as const),
      atMs: fc.nat(20_000),
    }),
    fc.record({
      do: fc.constantFrom('breakWire' as const, 'mendWire' as const),
      atMs: fc.nat(20_000),
      wire: fc.constantFrom('12', '14', '16', '17', '18'),
    }),
  ),
  { maxLength: 12 },
);

describe('rehearse', () => {
  it('switches the input by its voltage after the filter and follows the ramp', () => {
    const t = rehearse(installation, [...on, turn(3000, 'forward')], 12_000);
    const in1 = installation.landings.indexOf('device:IN1');
    const ic = installation.landings.indexOf('device:IC');
    expect(voltsAt(t, in1, ic, 2_999_000)?.dc).toBeCloseTo(0, 6);
    expect(voltsAt(t, in1, ic, 3_001_000)?.dc).toBeCloseTo(24, 1);
    expect(stateAt(t, 'device.state', 3_004_000)).toBe('ready');
    expect(stateAt(t, 'device.state', 3_006_000)).toBe('accelerating');
    expect(hz(t, 4005)).toBeCloseTo(10, 3);
  });

  it('reads the dial loaded by the input, as the network says', () => {
    // 5 kΩ on 10 V behind 47 Ω into 30 kΩ at 3/4: hand calculation with the wires left out
    const below = 1 / (1 / 3750 + 1 / 30_000);
    const volts = (10 * below) / (47 + 1250 + below);
    const t = rehearse(
      installation,
      [
        { do: 'supplyOn', atMs: 0 },
        { do: 'dial', atMs: 100, device: 'dial.speed', to: 0.75 },
        turn(3000, 'forward'),
      ],
      15_000,
    );
    expect(hz(t, 14_000)).toBeCloseTo(volts * 5, 1);
  });

  it('does nothing on a press of 3 ms', () => {
    const t = rehearse(installation, [...on, turn(3000, 'forward'), turn(3003, 'off')], 6000);
    const state = t.signals.findIndex((s) => s.id === 'device.state');
    expect(t.segments[state].t.filter((at) => at >= 3_000_000)).toEqual([]);
  });

  it('is faulted by a cut supply sooner the more the motor draws, and the display dies later', () => {
    const at = (torquePct: number): number => {
      const loaded: Job = {
        ...job,
        plate: { ...job.plate, load: { ...job.plate.load, torquePct } },
      };
      const t = rehearse(
        install(loaded, marrowick()),
        [...on, turn(3000, 'forward'), { do: 'supplyOff', atMs: 12_000 }],
        20_000,
      );
      const states = t.signals.findIndex((s) => s.id === 'device.state');
      const names = t.signals[states].states ?? [];
      const k = t.segments[states].y.findIndex((y) => names[y] === 'faulted');
      expect(stateAt(t, 'device.state', 19_900_000)).toBe('off');
      return t.segments[states].t[k] / 1000 - 12_000;
    };
    const [light, full] = [at(10), at(100)];
    expect(full).toBeLessThan(12);
    // t = C·(U0² − Umin²)/(2·P) for 176 µF at 566 V, down to 68 %, and 2.2 kW·49.45/50/0.87 plus 24 W
    const joules = 0.5e-6 * 176 * 2 * 400 * 400 * (1 - 0.68 * 0.68);
    expect(full).toBeCloseTo((1000 * joules) / ((2200 * 0.98906) / 0.87 + 24), 1);
    expect(light).toBeGreaterThan(5 * full);
  });

  it('stops when the feed of the station breaks, and no input works without the common link', () => {
    const broken = rehearse(
      installation,
      [...on, turn(3000, 'forward'), { do: 'breakWire', atMs: 9000, wire: '12' }],
      20_000,
    );
    expect(hz(broken, 8900)).toBeGreaterThan(49);
    expect(hz(broken, 19_000)).toBe(0);
    const out = rehearse(
      installation,
      [...on, { do: 'link', atMs: 200, link: 'IL', position: 'out' }, turn(3000, 'forward')],
      9000,
    );
    expect(stateAt(out, 'device.state', 8_900_000)).toBe('ready');
    expect(signalAt(out, 'device.IN1', 8_900_000)).toBe(0);
  });

  it('trips on a missing phase and shows it in the voltages', () => {
    const t = rehearse(
      installation,
      [...on, turn(3000, 'forward'), { do: 'breakWire', atMs: 9000, wire: '2' }],
      11_000,
    );
    expect(stateAt(t, 'device.state', 9_100_000)).toBe('faulted');
    const [l1, l2, l3] = ['L1', 'L2', 'L3'].map((x) =>
      installation.landings.indexOf(`device:${x}`),
    );
    expect(voltsAt(t, l2, l3, 9_100_000)?.ac).toBeCloseTo(400, 0);
    expect(voltsAt(t, l1, l2, 9_100_000)?.ac).toBeCloseTo(200, 0);
  });

  it('gives the same trace bit for bit: again, without the cache, and with devices in any order', () => {
    const count = installation.devices.length;
    fc.assert(
      fc.property(
        randomActs,
        fc.shuffledSubarray([...Array(count).keys()], { minLength: count }),
        (acts, order) => {
          const first = bits(rehearse(installation, [...on, ...acts], 25_000));
          expect(bits(rehearse(installation, [...on, ...acts], 25_000))).toBe(first);
          expect(bits(rehearse(installation, [...on, ...acts], 25_000, { cached: false }))).toBe(
            first,
          );
          expect(bits(rehearse(installation, [...on, ...acts], 25_000, { order }))).toBe(first);
        },
      ),
      { numRuns: 25, seed: 3 },
    );
  });

  it('gives the same trace when acts are given live, one by one, also after going back', () => {
    fc.assert(
      fc.property(randomActs, fc.nat(15_000), (acts, back) => {
        const all = [...on, ...acts]
          .map((act, i) => ({ act, i }))
          .sort((x, y) => x.act.atMs - y.act.atMs || x.i - y.i)
          .map(({ act }) => act);
        const session = new Session(installation);
        session.act(back * 1000, [turn(back, 'reverse')]);
        for (const act of all) session.act(act.atMs * 1000, [act]);
        const kept = all[0].atMs <= back ? all : [turn(back, 'reverse'), ...all];
        const wanted = rehearse(installation, kept, 25_000);
        session.reach(25_000_000);
        expect(bits(session.trace, 20_000_000)).toBe(bits(wanted, 20_000_000));
      }),
      { numRuns: 20, seed: 8 },
    );
  });

  it('never reverses without standing still and never jumps', () => {
    fc.assert(
      fc.property(randomActs, (acts) => {
        const t = rehearse(installation, [...on, ...acts], 26_000);
        for (let ms = 10; ms <= 26_000; ms += 10) {
          const [before, now] = [hz(t, ms - 10), hz(t, ms)];
          if (Math.sign(before) * Math.sign(now) < 0)
            expect(Math.abs(before) + Math.abs(now)).toBeLessThan(0.13);
          if (Math.abs(now) > Math.abs(before))
            expect(Math.abs(now) - Math.abs(before)).toBeLessThan(0.11);
        }
      }),
      { numRuns: 20, seed: 12 },
    );
  });
});
