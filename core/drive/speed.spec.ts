import fc from 'fast-check';
import * as v from 'valibot';
import { runDriveCase } from './case.js';
import { stretchValue } from '../numeric/index.js';
import { nextCrossing, planRamp } from './ramp.js';
import { driveCaseSchema } from './vocabulary.js';

type Events = readonly (readonly [number, string, number])[];

/** 10 Hz/s both ways, run given by one contact; output in Hz at the times asked. */
function hz(control: object, events: Events, sampleMs: readonly number[]): number[] {
  const base = {
    startMethod: 'levelForwardReverse',
    maxHz: 50,
    accelS: 5,
    decelS: 5,
    referenceHz: 30,
    filterMs: 0,
    powerUpDelayMs: 0,
  };
  const ordered = [...events]
    .sort(([x], [y]) => x - y)
    .map(([atMs, input, level]) => ({ atMs, input, level }));
  return runDriveCase(
    v.parse(driveCaseSchema, {
      control: { ...base, ...control },
      inputs: {},
      events: ordered,
      sampleMs,
    }),
  ).map((s) => Math.round(s.hz * 100) / 100 || 0);
}
const forward: Events = [[0, 'forward', 1]];

describe('where the speed comes from', () => {
  it('presets, binary: the combination counts, 0 is the base reference', () => {
    const control = { presetsHz: [5, 10, 15, 20], presetCoding: 'binary' };
    const bits: Events = [
      [5000, 'presetBit0', 1],
      [10_000, 'presetBit1', 1],
      [15_000, 'presetBit0', 0],
      [20_000, 'presetBit1', 0],
      [20_000, 'presetBit2', 1],
      [25_000, 'presetBit2', 0],
    ];
    expect(
      hz(control, [...forward, ...bits], [4900, 9900, 14_900, 19_900, 24_900, 29_900]),
    ).toEqual([30, 5, 15, 10, 20, 30]);
  });

  it('presets, priority: the highest that is closed wins', () => {
    const control = { presetsHz: [5, 10, 15], presetCoding: 'priority' };
    const bits: Events = [
      [5000, 'presetBit0', 1],
      [10_000, 'presetBit2', 1],
      [15_000, 'presetBit1', 1],
      [20_000, 'presetBit2', 0],
    ];
    expect(hz(control, [...forward, ...bits], [9900, 14_900, 19_900, 24_900])).toEqual([
      5, 15, 15, 10,
    ]);
  });

  it('a combination beyond the presets leaves the base reference', () => {
    expect(
      hz({ presetsHz: [5, 10] }, [...forward, [0, 'presetBit0', 1], [0, 'presetBit1', 1]], [9900]),
    ).toEqual([30]);
  });

  it('up and down move it at their rate, both together and none leave it, and its ends hold', () => {
    const control = { referenceSource: 'motorPot', motorPotHzPerS: 5, minHz: 2, maxHz: 20 };
    const events: Events = [
      ...forward,
      [1000, 'up', 1],
      [3000, 'down', 1],
      [4000, 'down', 0],
      [4000, 'up', 0],
      [5000, 'up', 1],
      [15_000, 'up', 0],
      [15_000, 'down', 1],
    ];
    // 2 Hz + 2 s of 5 Hz/s = 12 Hz; held; then to 20 Hz and no further; then down to 2 Hz and no further.
    const [a, b, c, d] = hz(control, events, [3500, 4900, 14_900, 29_900]);
    expect([a, b, c, d].map((x) => Math.round(x))).toEqual([12, 12, 20, 2]);
  });

  it('up and down are forgotten at power-off, or kept where the setting says so', () => {
    const events: Events = [
      ...forward,
      [0, 'up', 1],
      [2000, 'up', 0],
      [4000, 'mains', 0],
      [8000, 'mains', 1],
      [8500, 'forward', 0],
      [9000, 'forward', 1],
    ];
    const control = { referenceSource: 'motorPot', motorPotHzPerS: 10, rideThroughMs: 20 };
    expect(hz(control, events, [12_900]).map(Math.round)).toEqual([0]);
    expect(hz({ ...control, keepOnPowerOff: true }, events, [12_900]).map(Math.round)).toEqual([
      20,
    ]);
  });

  it('a preset stands before the up and down reference, jog before both', () => {
    const control = {
      referenceSource: 'motorPot',
      motorPotHzPerS: 10,
      presetsHz: [7],
      jogHz: 3,
      jogWhileRunning: 'wins',
    };
    const events: Events = [
      ...forward,
      [0, 'up', 1],
      [2000, 'up', 0],
      [4000, 'presetBit0', 1],
      [8000, 'jogForward', 1],
    ];
    expect(hz(control, events, [3900, 7900, 11_900])).toEqual([20, 7, 3]);
  });

  it('jog select changes the reference and starts nothing by itself', () => {
    expect(hz({ jogHz: 4 }, [[0, 'jogReferenceSelect', 1]], [4000])).toEqual([0]);
    expect(hz({ jogHz: 4 }, [[0, 'jogReferenceSelect', 1], ...forward], [4000])).toEqual([4]);
  });
});

describe('how the speed is reached', () => {
  it('hold stops the ramp where it is, up and down, and lets it go on', () => {
    const events: Events = [
      ...forward,
      [1000, 'hold', 1],
      [3000, 'hold', 0],
      [8000, 'referenceHz', 10],
      [9000, 'hold', 1],
    ];
    expect(hz({}, events, [990, 2900, 3500, 7900, 8990, 12_000])).toEqual([
      9.9, 10, 15, 30, 20.1, 20,
    ]);
  });

  it('hold does not keep a stop from stopping', () => {
    expect(hz({}, [...forward, [2000, 'hold', 1], [3000, 'forward', 0]], [2900, 8000])).toEqual([
      20, 0,
    ]);
  });

  it('the second pair of ramps takes over under way, from where the output is', () => {
    const control = { accel2S: 50, decel2S: 25 };
    // 10 Hz/s for a second, then 1 Hz/s; down at 2 Hz/s.
    expect(
      hz(control, [...forward, [1000, 'rampSelect', 1], [5000, 'forward', 0]], [1000, 5000, 7000]),
    ).toEqual([10, 14, 10]);
  });

  it('a skip band is held at the edge it was approached from until the reference leaves the far one', () => {
    const control = { skipBandsHz: [[20, 24]] };
    const events: Events = [
      [0, 'referenceHz', 22],
      ...forward,
      [5000, 'referenceHz', 23.9],
      [7000, 'referenceHz', 25],
      [9000, 'referenceHz', 21],
    ];
    expect(hz(control, events, [4900, 6900, 8900, 10_900])).toEqual([20, 20, 25, 24]);
  });

  it('below the lowest frequency it is clamped, or sleeps where the device does that', () => {
    const events: Events = [[0, 'referenceHz', 3], ...forward];
    expect(hz({ minHz: 8 }, events, [4900])).toEqual([8]);
    expect(hz({ minHz: 8, belowMin: 'sleep' }, events, [4900])).toEqual([0]);
  });

  it('an S-shape takes T·(1 + p/100), and a step too small for the full slope 2·√(Δf·T²·p/(100·fRef))', () => {
    const whole = planRamp(0, 0, 50, 5, 50, 40);
    expect(whole.endUs).toBe(7_000_000);
    const small = planRamp(0, 0, 5, 5, 50, 40);
    expect(small.endUs / 1e6).toBeCloseTo(2 * Math.sqrt((5 * 25 * 0.4) / 50), 5);
  });
});

describe('the moment a ramp passes a frequency', () => {
  const ramp = fc.record({
    from: fc.double({ min: -50, max: 50, noNaN: true }),
    to: fc.double({ min: 0, max: 50, noNaN: true }),
    s: fc.double({ min: 0.5, max: 20, noNaN: true }),
    p: fc.constantFrom(0, 20, 80),
    level: fc.double({ min: 0.5, max: 49, noNaN: true }),
  });

  it('is where the frequency is, and nothing passes before it', () => {
    fc.assert(
      fc.property(ramp, ({ from, to, s, p, level }) => {
        const r = planRamp(0, from, from < 0 ? -to : to, s, 50, p);
        const at = nextCrossing(r, level, 0);
        const size = (t: number): number => {
          const piece = r.stretches.findLast((x) => x.t0 <= t) ?? r.stretches[0];
          return Math.abs(t >= r.endUs ? r.rest : stretchValue(piece, t));
        };
        const above = size(1) > level;
        const until = Number.isFinite(at) ? at : r.endUs;
        for (let i = 1; i < 20; i++) {
          const t = Math.floor((until * i) / 20);
          if (t > 1 && t < until - 2 && Math.abs(size(t) - level) > 1e-3)
            expect(size(t) > level).toBe(above);
        }
        if (Number.isFinite(at)) expect(Math.abs(size(at) - level)).toBeLessThan(1e-3);
      }),
      { numRuns: 300 },
    );
  });

  it('is never for a level the ramp does not reach', () => {
    expect(nextCrossing(planRamp(0, 0, 20, 5, 50, 0), 30, 0)).toBe(Infinity);
    expect(nextCrossing(planRamp(0, 0, 50, 5, 50, 0), 10, 0)).toBe(1_000_000);
    expect(nextCrossing(planRamp(0, 0, 50, 5, 50, 0), 10, 1_000_000)).toBe(Infinity);
  });
});
