/**
 * Minimises the sum of squares of `residuals` by the method of Levenberg and Marquardt with a numerical Jacobian.
 *
 * Source: Marquardt, SIAM J. Appl. Math. 11 (1963) 431–441.
 *
 * @param residuals gives the residuals at parameters; NaN or infinite counts as a refused step
 * @param start first parameters, scaled so that steps of 0.1 are moderate (logarithms of positive quantities)
 * @returns parameters and the root of the sum of squares there
 * @example leastSquares(([x]) => [x * x - 2], [1]).at[0] // 1.41421356
 */
export function leastSquares(
  residuals: (at: readonly number[]) => readonly number[],
  start: readonly number[],
  rounds = 200,
): { at: number[]; norm: number } {
  let at = [...start];
  let now = residuals(at);
  let size = sumOfSquares(now);
  let damping = 1e-3;
  for (let round = 0; round < rounds && size > 1e-24 && damping < 1e12; round++) {
    const jacobian = columns(residuals, at, now);
    const normal = jacobian.map((a) => jacobian.map((b) => dot(a, b)));
    const gradient = jacobian.map((a) => dot(a, now));
    const step = solveDense(
      normal.map((row, i) => row.map((x, j) => (i === j ? x * (1 + damping) + 1e-15 : x))),
      gradient,
    );
    const next = at.map((x, i) => x - step[i]);
    const there = residuals(next);
    const nextSize = sumOfSquares(there);
    if (nextSize < size) {
      const gained = (size - nextSize) / size;
      [at, now, size, damping] = [next, there, nextSize, damping / 5];
      if (gained < 1e-7) break;
    } else damping *= 4;
  }
  return { at, norm: Math.sqrt(size) };
}

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, x, i) => sum + x * b[i], 0);

function sumOfSquares(r: readonly number[]): number {
  const sum = dot(r, r);
  return Number.isFinite(sum) ? sum : Infinity;
}

function columns(
  residuals: (at: readonly number[]) => readonly number[],
  at: readonly number[],
  now: readonly number[],
): number[][] {
  return at.map((x, i) => {
    const h = 1e-6 * Math.max(1, Math.abs(x));
    const there = residuals(at.map((y, k) => (k === i ? x + h : y)));
    return there.map((y, k) => (y - now[k]) / h);
  });
}

/** Gaussian elimination with partial pivoting for a handful of unknowns. */
function solveDense(a: number[][], b: readonly number[]): number[] {
  const n = b.length;
  const m = a.map((row, i) => [...row, b[i]]);
  for (let i = 0; i < n; i++) {
    const pivot = m.reduce(
      (best, row, r) => (r >= i && Math.abs(row[i]) > Math.abs(m[best][i]) ? r : best),
      i,
    );
    [m[i], m[pivot]] = [m[pivot], m[i]];
    for (let r = i + 1; r < n; r++) {
      const f = m[r][i] / m[i][i];
      for (let c = i; c <= n; c++) m[r][c] -= f * m[i][c];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--)
    x[i] =
      (m[i][n] - m[i].slice(i + 1, n).reduce((sum, y, k) => sum + y * x[i + 1 + k], 0)) / m[i][i];
  return x;
}
