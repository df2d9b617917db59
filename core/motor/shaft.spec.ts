import fc from 'fast-check';
import type { Path } from '../numeric/index.js';
import { runDownPath, runDownTable, type RunDown } from './run-down.js';
import {
  shaftBehaviour,
  shaftHz,
  shaftRpm,
  type InstalledShaft,
  type ShaftState,
} from './shaft.js';

const fall = (more: Partial<RunDown>): RunDown => ({
  baseHzPerS: 10,
  linear: 0,
  square: 0,
  pullHzPerS: 0,
  brakeHzPerS: undefined,
  ...more,
});
/** Time to rest of dω/dt = −(a + b·ω + c·ω²), s. */
const restS = ({ baseHzPerS: a, linear: b, square: c }: RunDown, w: number): number =>
  c > 0
    ? Math.atan(w * Math.sqrt(c / a)) / Math.sqrt(a * c)
    : b > 0
      ? Math.log(1 + (b * w) / a) / b
      : w / a;

describe('a free shaft', () => {
  it('runs down in the time of the closed form: friction alone, with drag, with air', () => {
    for (const law of [fall({}), fall({ linear: 0.4 }), fall({ square: 0.02, baseHzPerS: 2 })])
      for (const from of [50, 33, 7.5, -50, -12]) {
        const path = runDownPath(runDownTable(law, 100), from, 1_000_000);
        const s = (path.endUs - 1_000_000) / 1e6;
        const closed = restS(law, Math.abs(from));
        expect(Math.abs(s - closed) / closed)
          .withContext(`${JSON.stringify(law)} from ${from}`)
          .toBeLessThan(2e-3);
        expect(path.rest).toBe(0);
      }
  });

  const installed: InstalledShaft = {
    kind: 'shaft',
    id: 'motor',
    tag: 'M1',
    drivenBy: 'device',
    brake: 'brake',
    isolator: undefined,
    turns: 1,
    polePairs: 2,
    slipRpm: 40,
    runDown: fall({ pullHzPerS: 4, brakeHzPerS: 100 }),
    assumedS: 8,
    maxHz: 50,
  };
  /** A shaft whose output and brake the test moves by hand. */
  function bed(d: Partial<InstalledShaft> = {}) {
    let driven: Path | null = null;
    let open = true;
    let closed = true;
    const device = shaftBehaviour(
      { ...installed, ...d },
      {
        demand: () => (driven ? { kind: 'frequency', path: driven } : { kind: 'off' }),
        brakeOpen: () => open,
        isolatorClosed: () => closed,
      },
    );
    let s: ShaftState = device.init();
    const at = (ms: number): number => shaftHz(s, ms * 1000);
    return {
      at,
      name: () => s.name,
      /** Steps at its own wakes up to a moment, then at it. */
      to(ms: number, change: { hz?: number | null; open?: boolean; closed?: boolean } = {}) {
        for (let t = device.wake(s, 0); t <= ms * 1000;) {
          s = device.step(s, [], t, () => undefined);
          const next = device.wake(s, t);
          if (next <= t) break;
          t = next;
        }
        if (change.open !== undefined) ({ open } = change as { open: boolean });
        if (change.closed !== undefined) ({ closed } = change as { closed: boolean });
        if (change.hz !== undefined)
          driven =
            change.hz === null
              ? null
              : { stretches: [{ t0: 0, y: change.hz, dy: 0, ddy: 0 }], endUs: 0, rest: change.hz };
        s = device.step(s, [], ms * 1000, () => undefined);
      },
    };
  }

  it('stands until it is driven, and is driven as the output says', () => {
    const b = bed();
    b.to(100);
    expect([b.name(), b.at(100)]).toEqual(['still', 0]);
    b.to(200, { hz: 20 });
    expect([b.name(), b.at(5000)]).toEqual(['driven', 20]);
  });

  it('is pulled backwards by an overhauling load until the brake holds it', () => {
    const b = bed();
    b.to(0, { hz: 20 });
    b.to(1000, { hz: null });
    expect(b.name()).toBe('rollsBack');
    // 20 Hz at 10 Hz/s down to rest in 2 s, then 4 Hz/s the other way.
    expect(b.at(2000)).toBeCloseTo(10, 6);
    expect(b.at(4000)).toBeCloseTo(-4, 6);
    b.to(4000, { open: false });
    expect(b.name()).toBe('braking');
    b.to(4100);
    expect([b.name(), b.at(4100)]).toEqual(['held', 0]);
    b.to(9000);
    expect([b.name(), b.at(9000)]).toEqual(['held', 0]);
  });

  it('coasts for a time that is not known where inertia or load are not entered, and never stands at once', () => {
    const b = bed({ runDown: undefined, brake: undefined });
    b.to(0, { hz: 50 });
    b.to(1000, { hz: null });
    expect(b.name()).toBe('runsDownUnknown');
    expect(b.at(1400)).toBeGreaterThan(40);
  });

  it('is no longer driven behind an open isolator, whatever the output does, and is again when it closes', () => {
    const b = bed({
      isolator: 'isolator.motor',
      brake: undefined,
      runDown: fall({ brakeHzPerS: 20 }),
    });
    b.to(0, { hz: 20 });
    b.to(1000, { closed: false });
    expect(b.name()).toBe('runsDown');
    b.to(5000);
    expect([b.name(), b.at(5000)]).toEqual(['still', 0]);
    b.to(6000, { closed: true });
    expect([b.name(), b.at(6100)]).toEqual(['driven', 20]);
  });

  it('does not turn a closed brake', () => {
    const b = bed();
    b.to(0, { open: false, hz: 20 });
    expect([b.name(), b.at(100)]).toEqual(['held', 0]);
  });

  it('never speeds up by itself without a load that pulls, whatever is done', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ hz: fc.constantFrom(null, 0, 10, 50, -30), open: fc.boolean() }), {
          minLength: 1,
          maxLength: 8,
        }),
        (moves) => {
          const b = bed({ runDown: fall({ linear: 0.1 }) });
          moves.forEach((move, i) => {
            const [t, before] = [(i + 1) * 700, b.at((i + 1) * 700)];
            b.to(t, move);
            if (b.name() !== 'driven')
              expect(Math.abs(b.at(t + 600))).toBeLessThanOrEqual(Math.abs(before) + 1e-9);
          });
        },
      ),
    );
  });

  it('turns slower than its field while it is driven, and has no speed where the poles are not known', () => {
    expect(shaftRpm(installed, 'driven', 50)).toBe(1460);
    expect(shaftRpm(installed, 'driven', -50)).toBe(-1460);
    expect(shaftRpm(installed, 'runsDown', 50)).toBe(1500);
    expect(shaftRpm({ ...installed, polePairs: undefined }, 'driven', 50)).toBeUndefined();
  });
});
