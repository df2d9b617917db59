import { CalculationError, runCalculation } from '../calculation/index.js';
import { runUpOf } from './run-up.js';
import { smallestLimit } from './smallest-limit.js';
import { startsPerHour } from './starts-per-hour.js';
import { imageTau, TRIP_HEAT } from './thermal.js';

const circuit = smallestLimit.example?.['circuit'] as never;
const asked = {
  circuit,
  inertiaKgm2: 1,
  load: { kind: 'square', torqueNm: 150, ratedRpm: 1480 },
  start: { kind: 'currentLimit', limitA: 1 },
} as const;

describe('the smallest limit', () => {
  it('starts, and a per cent less does not, within 0.5 %', () => {
    for (const withinS of [4, 10, 30]) {
      const { limitA } = smallestLimit.run({ ...asked, withinS });
      const at = (a: number) =>
        runUpOf(circuit, 1, asked.load, { kind: 'currentLimit', limitA: a }).startS;
      expect(at(limitA as number)).toBeLessThanOrEqual(withinS * 1.001);
      const less = at(0.99 * (limitA as number));
      expect(less === null || less > withinS)
        .withContext(`${withinS}: ${limitA} ${less}`)
        .toBeTrue();
    }
  });

  it('falls with the time that is allowed, and rises with the load', () => {
    const limits = [3, 6, 12, 60].map((withinS) => smallestLimit.run({ ...asked, withinS }).limitA);
    for (let i = 1; i < limits.length; i++)
      expect(limits[i] as number).toBeLessThan(limits[i - 1] as number);
    const heavy = { ...asked.load, torqueNm: 220 };
    expect(smallestLimit.run({ ...asked, load: heavy, withinS: 12 }).limitA).toBeGreaterThan(
      limits[2] as number,
    );
  });

  it('keeps the cold image of a class below its trip', () => {
    const of = (tripClass: '10' | '30') =>
      smallestLimit.run({ ...asked, inertiaKgm2: 12, tripClass, ratedA: 60 }).limitA;
    expect(of('30') as number).toBeLessThan(of('10') as number);
    expect(() => smallestLimit.run({ ...asked, tripClass: '10' })).toThrowError(
      CalculationError,
      /ratedA/u,
    );
  });

  it('is none, with the reason, where a direct start does not do it either', () => {
    const { limitA, reason } = smallestLimit.run({ ...asked, withinS: 0.2 });
    expect([limitA, reason]).toEqual([null, 'a direct start does not do it either']);
  });
});

describe('starts an hour', () => {
  const run = { startS: 10, rmsA: 200, runA: 50, ratedA: 66.8 };

  it('of the motor: the repeating cycle, step by step, peaks just below the limit', () => {
    const { motorPerHour } = startsPerHour.run({ run, tripClass: '10', restFactor: 3 });
    const tau = imageTau('10');
    const highest = (perHour: number): number => {
      let [heat, most] = [0, 0];
      for (let n = 0; n < 400; n++) {
        // Euler with a twentieth of a second, as plain as can be.
        for (let t = 0; t < 10; t += 0.05) heat += (0.05 * ((200 / 66.8) ** 2 - heat)) / tau;
        most = n > 200 ? Math.max(most, heat) : 0;
        for (let t = 0; t < 3600 / perHour - 10; t += 0.5) heat -= (0.5 * heat) / (3 * tau);
      }
      return most;
    };
    expect(motorPerHour).toBeGreaterThan(2);
    expect(highest(motorPerHour)).toBeLessThan(0.951 * TRIP_HEAT);
    expect(highest(motorPerHour + 1)).toBeGreaterThan(0.949 * TRIP_HEAT);
  });

  it('of the device: OFF time grows with the energy of the start, and too much current is none at all', () => {
    const duty = { kind: 'AC-53b', ratedA: 75, times: 3.5, seconds: 30, offS: 330 } as const;
    const energy = (200 / 75) ** 2 * 10;
    const offS = (330 * energy) / (3.5 ** 2 * 30);
    const { starterPerHour } = startsPerHour.run({ run, tripClass: '30', restFactor: 3, duty });
    expect(starterPerHour).toBe(Math.floor(3600 / (10 + offS)));
    const strong = { ...run, rmsA: 300 };
    expect(
      startsPerHour.run({ run: strong, tripClass: '30', restFactor: 3, duty }).starterPerHour,
    ).toBe(0);
  });

  it('takes the smaller of both, and tells how long to wait', () => {
    const { result } = runCalculation(startsPerHour, startsPerHour.example ?? {});
    expect(result['perHour']).toBe(
      Math.min(result['motorPerHour'] as number, result['starterPerHour'] as number),
    );
    const hot = { ...run, startS: 40 };
    const { countdownS } = startsPerHour.run({ run: hot, tripClass: '10', restFactor: 3 });
    expect(countdownS).toBeGreaterThan(60);
  });
});
