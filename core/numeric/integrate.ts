/** One accepted step of an integration. */
export interface IntegrationStep {
  readonly t: number;
  readonly y: readonly number[];
}

// Coefficients of Dormand and Prince, J. Comp. Appl. Math. 6 (1980) 19–26.
const nodes = [0, 1 / 5, 3 / 10, 4 / 5, 8 / 9, 1, 1];
const stages = [
  [],
  [1 / 5],
  [3 / 40, 9 / 40],
  [44 / 45, -56 / 15, 32 / 9],
  [19372 / 6561, -25360 / 2187, 64448 / 6561, -212 / 729],
  [9017 / 3168, -355 / 33, 46732 / 5247, 49 / 176, -5103 / 18656],
  [35 / 384, 0, 500 / 1113, 125 / 192, -2187 / 6784, 11 / 84],
];
const fourth = [5179 / 57600, 0, 7571 / 16695, 393 / 640, -92097 / 339200, 187 / 2100, 1 / 40];

/**
 * Integrates y' = f(t, y) with steps that fit the tolerance (Dormand–Prince 5(4)).
 *
 * @param until ends the integration when it returns true after an accepted step
 * @param scale size of each component that a relative error of `tolerance` refers to
 * @param longest longest step, s
 * @returns every accepted step, the start first
 * @example integrate((_t, [y]) => [-y], [1], { end: 1, scale: [1], tolerance: 1e-8, longest: 1, until: () => false }).at(-1)?.y[0] // 0.36787944
 */
export function integrate(
  f: (t: number, y: readonly number[]) => readonly number[],
  start: readonly number[],
  options: {
    end: number;
    scale: readonly number[];
    tolerance: number;
    longest: number;
    until: (step: IntegrationStep) => boolean;
  },
): IntegrationStep[] {
  const { end, scale, tolerance, longest, until } = options;
  const steps: IntegrationStep[] = [{ t: 0, y: start }];
  let h = longest / 100;
  for (let guard = 0; guard < 100_000; guard++) {
    const { t, y } = steps[steps.length - 1];
    if (t >= end) break;
    h = Math.min(h, longest, end - t);
    const k: (readonly number[])[] = [];
    for (let s = 0; s < 7; s++)
      k.push(
        f(
          t + nodes[s] * h,
          y.map((x, i) => x + h * stages[s].reduce((sum, c, j) => sum + c * k[j][i], 0)),
        ),
      );
    const next = y.map((x, i) => x + h * stages[6].reduce((sum, c, j) => sum + c * k[j][i], 0));
    const lower = y.map((x, i) => x + h * fourth.reduce((sum, c, j) => sum + c * k[j][i], 0));
    const error = Math.max(...next.map((x, i) => Math.abs(x - lower[i]) / (tolerance * scale[i])));
    if (error <= 1 || h < 1e-9) {
      const step = { t: t + h, y: next };
      steps.push(step);
      if (until(step)) break;
    }
    h *= Math.min(4, Math.max(0.2, 0.9 * Math.max(error, 1e-10) ** -0.2));
  }
  return steps;
}
