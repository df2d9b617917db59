import { levenbergMarquardt } from 'ml-levenberg-marquardt';

/** Damping at the start, and the step of the numerical Jacobian. */
const DAMPING = 1e-3;
const DIFFERENCE = 1e-6;

/**
 * Minimises the sum of squares of `residuals` by the method of Levenberg and Marquardt with a numerical Jacobian.
 *
 * Source: Marquardt, SIAM J. Appl. Math. 11 (1963) 431–441.
 *
 * @param residuals gives the residuals at parameters
 * @param start first parameters, scaled so that steps of 0.1 are moderate (logarithms of positive quantities)
 * @returns parameters and the root of the sum of squares there; the start where no step is better
 * @example leastSquares(([x]) => [x * x - 2], [1]).at[0] // 1.41421356
 */
export function leastSquares(
  residuals: (at: readonly number[]) => readonly number[],
  start: readonly number[],
  rounds = 200,
): { at: number[]; norm: number } {
  const x = residuals(start).map((_, i) => i);
  const model = (at: readonly number[]) => {
    const values = residuals(at);
    return (i: number): number => values[i];
  };
  const { parameterValues: at } = levenbergMarquardt({ x, y: x.map(() => 0) }, model, {
    initialValues: [...start],
    damping: DAMPING,
    maxIterations: rounds,
    gradientDifference: DIFFERENCE,
    errorTolerance: 1e-24,
  });
  return { at, norm: Math.hypot(...residuals(at)) };
}
