import fc from 'fast-check';
import { shippedProfile } from '../catalogue/index.js';
import { install, installAtSpeed, installedOf } from '../installation/index.js';
import { timeOrder, type Act, type Job, type Scheme } from '../job/index.js';
import { arrangeFor } from '../plan/index.js';
import {
  actsOf,
  give,
  powerUp,
  READY_MS,
  take,
  type Arrangement,
  type OperationId,
} from '../scheme/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { Engine, rehearse, timedActs } from './index.js';
import { signalAt, type Trace } from '../trace/index.js';

const n = shippedProfile('ondulet-n');
const jobOf = (scheme: Partial<Scheme>): Job =>
  adopted(
    bareJob(
      { accelS: 2, decelS: 2, directionBy: undefined, startBy: undefined, ...scheme },
      n,
      'N0220',
    ),
    n,
  );
const rich: readonly Partial<Scheme>[] = [
  {
    startStop: 'threeWire',
    stationFeed: 'chained',
    direction: 'forwardReverse',
    estop: 'safeTorqueOff',
    jog: 'bothWays',
    brakeRelease: true,
    lamps: ['running', 'stopReleased'],
  },
  {
    startStop: 'sealInRelay',
    latchSupply: 'own24',
    direction: 'forwardReverse',
    interlocks: ['guard'],
    estop: 'safeTorqueOffOneContact',
  },
  {
    startStop: 'threeWireTwoStarts',
    stationFeed: 'separate',
    direction: 'forwardReverse',
    estop: 'contactorInhibit',
    workLight: 'stays',
    lamps: ['contactorClosed'],
  },
  {
    startStop: 'twoWire',
    directionBy: 'twoContacts',
    startBy: 'maintainedButton',
    direction: 'forwardReverse',
    startWarningS: 1,
    presetsHz: [10, 25, 40],
  },
  {
    startStop: 'controller',
    controllerOutput: 'transistor',
    direction: 'forwardReverse',
    speed: 'voltage',
    handshake: true,
  },
];
const benches = rich.map((scheme) => {
  const job = jobOf(scheme);
  return {
    scheme,
    job,
    arrangement: arrangeFor(job, n),
    installation: installAtSpeed(job, n, { share: 1 }),
  };
});
type Bench = (typeof benches)[number];

/** Random presses, turns, supply cuts and broken wires within eight seconds of a station that is powered up. */
const script = (b: Bench): fc.Arbitrary<Act[]> => {
  const operations = Object.keys(b.arrangement.operations) as OperationId[];
  const wires = installedOf(b.installation, 'wires')[0].wires.map((w) => w.id);
  const at = fc.integer({ min: READY_MS, max: READY_MS + 8000 });
  const act = fc.oneof(
    {
      weight: 8,
      arbitrary: fc
        .tuple(at, fc.nat(operations.length - 1), fc.boolean())
        .map(([t, i, down]) => (down ? give : take)(b.arrangement, operations[i], t)),
    },
    {
      weight: 1,
      arbitrary: fc
        .tuple(at, fc.boolean())
        .map(([atMs, on]): Act => ({ do: on ? 'supplyOn' : 'supplyOff', atMs })),
    },
    {
      weight: 1,
      arbitrary: fc
        .tuple(at, fc.nat(wires.length - 1), fc.boolean())
        .map(([atMs, i, mend]): Act => ({
          do: mend ? 'mendWire' : 'breakWire',
          atMs,
          wire: wires[i],
        })),
    },
  );
  return fc
    .array(act, { minLength: 3, maxLength: 14 })
    .map((acts) => timeOrder([...powerUp(b.arrangement, 1), ...actsOf(...acts)]));
};
const END_MS = READY_MS + 10_000;
const anyRun = fc.constantFrom(...benches).chain((b) => fc.tuple(fc.constant(b), script(b)));
const bits = (t: Trace): string =>
  JSON.stringify([t.segments, t.events, t.instants.t, t.solutions.map((s) => Array.from(s.volts))]);

describe('whatever is pressed, cut or broken', () => {
  it('the same script gives the same trace, also with devices in another order and without the cache', () => {
    fc.assert(
      fc.property(anyRun, fc.integer(), ([b, acts], seed) => {
        const first = rehearse(b.installation, acts, END_MS);
        expect(bits(rehearse(b.installation, acts, END_MS))).toBe(bits(first));
        const count = b.installation.devices.length;
        const order = Array.from({ length: count }, (_, i) => i).sort(
          (x, y) => ((x * 7919 + seed) % 101) - ((y * 7919 + seed) % 101),
        );
        const shuffled = rehearse(b.installation, acts, END_MS, { order, cached: false });
        for (const signal of first.signals) {
          const [x, y] = [first, shuffled].map(
            (t) => t.segments[t.signals.findIndex((s) => s.id === signal.id)],
          );
          expect(y).withContext(signal.id).toEqual(x);
        }
      }),
      { numRuns: 80 },
    );
  });

  it('a snapshot taken under way and restored goes on as if nothing had been', () => {
    fc.assert(
      fc.property(anyRun, fc.integer({ min: READY_MS, max: END_MS - 1 }), ([b, acts], cutMs) => {
        const timed = timedActs(acts);
        const whole = new Engine(b.installation);
        whole.runTo(END_MS * 1000, timed);
        const engine = new Engine(b.installation);
        engine.runTo(
          cutMs * 1000,
          timed.filter((a) => a.t <= cutMs * 1000),
        );
        const kept = engine.snapshot();
        engine.runTo(END_MS * 1000, []);
        engine.restore(kept);
        engine.runTo(
          END_MS * 1000,
          timed.filter((a) => a.t > cutMs * 1000),
        );
        expect(bits(engine.trace)).toBe(bits(whole.trace));
      }),
      { numRuns: 60 },
    );
  });

  it('the output never jumps except to zero, and turns round only through zero', () => {
    fc.assert(
      fc.property(anyRun, ([b, acts]) => {
        const trace = rehearse(b.installation, acts, END_MS);
        const { t, y, dy, ddy } =
          trace.segments[trace.signals.findIndex((s) => s.id === 'device.hz')];
        for (let k = 1; k < t.length; k++) {
          const tau = (t[k] - t[k - 1]) / 1e6;
          const before = y[k - 1] + (dy[k - 1] + (ddy[k - 1] * tau) / 2) * tau;
          // A caught coasting shaft begins at its speed; everything else goes on from where it was, or stops.
          const caught = before === 0 && Math.abs(y[k]) > 0;
          if (!caught && y[k] !== 0) expect(Math.abs(y[k] - before)).toBeLessThan(1e-6);
          expect(before * y[k]).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('there is no output while an enable is open, nor while the stop input of a drive’s latch is', () => {
    const filterMs = n.filterMs + 1;
    fc.assert(
      fc.property(anyRun, ([b, acts]) => {
        const trace = rehearse(b.installation, acts, END_MS);
        const stop = Object.values(b.job.adopted?.assignments ?? {})
          .find((a) => a.task === 'stop')
          ?.at.split(':')[1];
        for (let ms = READY_MS; ms < END_MS; ms += 50) {
          const at = (signal: string, back = 0): number =>
            signalAt(trace, signal, (ms - back) * 1000);
          const open = ['device.SA', 'device.SB'].some((s) => at(s) === 0 && at(s, filterMs) === 0);
          if (open) expect(at('device.hz')).withContext(`enable open at ${ms}`).toBe(0);
          if (!stop) continue;
          // Stop open: never speeding up; the ramp down may still be running.
          const opened = [0, 20, 40].every((back) => at(`device.${stop}`, back) === 0);
          if (opened)
            expect(Math.abs(at('device.hz'))).toBeLessThanOrEqual(
              Math.abs(at('device.hz', 30)) + 1e-9,
            );
        }
      }),
      { numRuns: 80 },
    );
  });

  it('jog needs the stop circuit healthy and never latches', () => {
    const b = benches[0];
    const run = (acts: (Act | undefined)[]): Trace =>
      rehearse(
        b.installation,
        timeOrder([...powerUp(b.arrangement, 1), ...actsOf(...acts)]),
        END_MS,
      );
    const hz = (t: Trace, ms: number): number => signalAt(t, 'device.hz', ms * 1000);
    const a: Arrangement = b.arrangement;
    const jog = a.jogs.forward;
    const pressed = run([give(a, jog, READY_MS), take(a, jog, READY_MS + 2000)]);
    expect([hz(pressed, READY_MS + 1900) > 0, hz(pressed, READY_MS + 6000)]).toEqual([true, 0]);
    const stopped = run([give(a, 'stop', READY_MS), give(a, jog, READY_MS + 200)]);
    expect(hz(stopped, READY_MS + 2000)).toBe(0);
    const reverse = run([give(a, a.jogs.reverse, READY_MS)]);
    expect(hz(reverse, READY_MS + 2000)).toBeLessThan(0);
  });

  it('a press shorter than the filter does nothing, one longer starts', () => {
    const job = jobOf({
      startStop: 'threeWire',
      stationFeed: 'separate',
      direction: 'forwardOnly',
    });
    const a = arrangeFor(job, n);
    const hz = (heldMs: number): number => {
      const acts = actsOf(
        ...powerUp(a, 1),
        give(a, 'start', READY_MS),
        take(a, 'start', READY_MS + heldMs),
      );
      return signalAt(rehearse(install(job, n), acts, END_MS), 'device.hz', END_MS * 1000);
    };
    expect([hz(3), hz(3.9), hz(4.5) > 0]).toEqual([0, 0, true]);
  });
});
