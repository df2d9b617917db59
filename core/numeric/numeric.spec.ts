import { integrate, largestBetween, leastSquares, rootBetween } from './index.js';

describe('numbers against closed forms', () => {
  it('integrates a fall, an oscillation and a square law, and stops where it is told to', () => {
    const options = { end: 2, scale: [1, 1], tolerance: 1e-9, longest: 0.5, until: () => false };
    const fall = integrate((_t, [y]) => [-3 * y], [1], { ...options, scale: [1] }).at(-1);
    expect(fall?.t).toBeCloseTo(2, 12);
    expect(fall?.y[0]).toBeCloseTo(Math.exp(-6), 9);
    const swing = integrate((_t, [x, v]) => [v, -4 * x], [1, 0], options).at(-1);
    expect(swing?.y[0]).toBeCloseTo(Math.cos(4), 7);
    expect(swing?.y[1]).toBeCloseTo(-2 * Math.sin(4), 7);
    // dω/dt = −ω² from 1: ω = 1/(1 + t).
    const air = integrate((_t, [y]) => [-y * y], [1], {
      ...options,
      scale: [1],
      until: ({ y }) => y[0] < 0.5,
    });
    const last = air.at(-1);
    expect(last?.y[0]).toBeCloseTo(1 / (1 + (last?.t ?? 0)), 9);
    expect(air.at(-2)?.y[0]).toBeGreaterThanOrEqual(0.5);
  });

  it('fits what can be fitted exactly, and the straight line of least squares', () => {
    const two = leastSquares(([a, b]) => [a * a + b - 7, a - b * b + 1], [1, 1]);
    expect(two.norm).toBeLessThan(1e-6);
    expect(two.at[0] ** 2 + two.at[1]).toBeCloseTo(7, 6);
    const points = [
      [0, 1.1],
      [1, 2.9],
      [2, 5.2],
      [3, 6.8],
    ] as const;
    const line = leastSquares(([a, b]) => points.map(([x, y]) => a + b * x - y), [0, 0]);
    // Normal equations by hand: b = 1.94, a = 1.09.
    expect(line.at[0]).toBeCloseTo(1.09, 6);
    expect(line.at[1]).toBeCloseTo(1.94, 6);
  });

  it('finds roots to the last digits, from either side, and refuses where there is none', () => {
    expect(rootBetween((x) => x * x - 2, 0, 2)).toBeCloseTo(Math.SQRT2, 12);
    expect(rootBetween((x) => 2 - x * x, 2, 0)).toBeCloseTo(Math.SQRT2, 12);
    expect(rootBetween((x) => Math.exp(x) - 1e-9, -40, 5)).toBeCloseTo(Math.log(1e-9), 9);
    expect(rootBetween((x) => x, 0, 1)).toBe(0);
    expect(() => rootBetween((x) => x * x + 1, -1, 1)).toThrowError(RangeError);
  });

  it('finds the highest point', () => {
    expect(largestBetween((x) => x * Math.exp(-x), 0, 5)).toBeCloseTo(1, 6);
    expect(largestBetween((x) => -((x - 0.3) ** 4), 0, 1)).toBeCloseTo(0.3, 3);
  });
});
