import { calculation } from '../calculation/index.js';

/**
 * Unbalance of three readings: the largest deviation from their mean, in per cent of the mean.
 *
 * @example unbalance.run({ values: [400, 396, 398] }).unbalancePct // 0.503
 */
export const unbalance = calculation<
  { values: readonly number[] },
  { mean: number; maxDeviation: number; unbalancePct: number }
>({
  name: 'unbalance',
  title: 'Unbalance of three phases',
  args: { values: { unit: '', title: 'three readings', kind: 'list', min: 0 } },
  results: {
    mean: { unit: '', title: 'mean' },
    maxDeviation: { unit: '', title: 'largest deviation' },
    unbalancePct: { unit: '%', title: 'unbalance' },
  },
  formula: '100·max|x − mean|/mean',
  source: 'NEMA MG 1 §12.45',
  example: { values: [400, 396, 398] },
  run: ({ values }) => {
    const mean = values.reduce((sum, x) => sum + x, 0) / values.length;
    const maxDeviation = Math.max(...values.map((x) => Math.abs(x - mean)));
    return { mean, maxDeviation, unbalancePct: (100 * maxDeviation) / mean };
  },
});
