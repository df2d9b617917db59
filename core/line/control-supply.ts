import {
  calculation,
  between,
  CalculationError,
  choice,
  positive,
  result,
  upTo,
} from '../calculation/index.js';

/**
 * Control transformer against what hangs on it.
 *
 * @example controlTransformer.run({ holdingVA: [12, 8], inrushVA: [90, 60], ratingVA: 100, rule: 'switchedOne' }).peakVA // 98
 */
export const controlTransformer = calculation<
  {
    holdingVA: readonly number[];
    inrushVA: readonly number[];
    ratingVA: number;
    rule: string;
    inrushPowerFactor: number;
  },
  {
    holdingVA: number;
    peakVA: number;
    holdingPct: number;
    continuousOk: boolean;
    neededVA: number;
    peakOk: boolean;
  }
>({
  name: 'controlTransformer',
  title: 'Control transformer',
  args: {
    holdingVA: { unit: 'VA', title: 'holding, one each', kind: 'list', min: 0, max: 1e5 },
    inrushVA: { unit: 'VA', title: 'inrush, one each', kind: 'list', min: 0, max: 1e6 },
    ratingVA: positive('rating', 'VA', 1e6),
    rule: choice('how the peak is reckoned', [
      'sumPlusLargest',
      'switchedOne',
      'vectorSum',
      'pointEight',
    ]),
    inrushPowerFactor: between('power factor of the largest inrush', '', 0, 1, { fallback: 1 }),
  },
  results: {
    holdingVA: result('holding together', 'VA'),
    peakVA: result('peak', 'VA'),
    holdingPct: result('holding of the rating', '%'),
    continuousOk: result('holds for ever'),
    neededVA: result('rating by the 0.8 rule', 'VA'),
    peakOk: result('the rating covers it'),
  },
  formula:
    'sum and largest: ΣH + I_max;  switched one: the largest of ΣH − H_i + I_i;  vector sum: √(ΣH² + I_max²);  rating ≥ 0.8·(ΣH + I_max·cosφ), the 0.8 rule',
  source: 'usual rules for control transformers; IEC 61558-2-2',
  confirm: 'The transformer maker’s table of permissible inrush at 95 % voltage.',
  example: { holdingVA: [12, 8, 8], inrushVA: [90, 60, 60], ratingVA: 160, rule: 'sumPlusLargest' },
  run: ({ holdingVA, inrushVA, ratingVA, rule, inrushPowerFactor }) => {
    if (holdingVA.length !== inrushVA.length)
      throw new CalculationError(
        'inrushVA',
        `inrushVA must have ${holdingVA.length} items, one for each holding`,
      );
    const held = holdingVA.reduce((sum, x) => sum + x, 0);
    const largest = Math.max(...inrushVA);
    const neededVA = 0.8 * (held + largest * inrushPowerFactor);
    const peaks: Readonly<Record<string, number>> = {
      switchedOne: Math.max(...inrushVA.map((x, i) => held - holdingVA[i] + x)),
      vectorSum: Math.hypot(held, largest),
      pointEight: neededVA,
    };
    const peakVA = peaks[rule] ?? held + largest;
    return {
      holdingVA: held,
      peakVA,
      holdingPct: (100 * held) / ratingVA,
      continuousOk: held <= ratingVA,
      neededVA,
      peakOk: ratingVA >= neededVA,
    };
  },
});

/**
 * Load of a 24 V supply, steady and at the worst inrush, with a reserve.
 *
 * @example supplyBudget.run({ loadsA: [0.5, 0.3], largestInrushA: 1, ratingA: 2.5, reservePct: 20 }).ok // true
 */
export const supplyBudget = calculation<
  { loadsA: readonly number[]; largestInrushA: number; ratingA: number; reservePct: number },
  { totalA: number; withInrushA: number; loadPct: number; ok: boolean }
>({
  name: 'supplyBudget',
  title: 'Budget of a control supply',
  args: {
    loadsA: { unit: 'A', title: 'steady loads', kind: 'list', min: 0, max: 1000 },
    largestInrushA: upTo('largest inrush', 'A', 10_000),
    ratingA: positive('rating', 'A', 1000),
    reservePct: upTo('reserve to keep', '%', 90),
  },
  results: {
    totalA: result('steady', 'A'),
    withInrushA: result('with the inrush', 'A'),
    loadPct: result('of the rating', '%'),
    ok: result('enough'),
  },
  formula: 'ΣI ≤ I_N·(1 − reserve) and ΣI + I_inrush ≤ I_N',
  source: 'rating of the supply; IEC 60204-1 §9.1',
  confirm: 'Short overload the supply’s maker allows for inrush.',
  example: { loadsA: [0.5, 0.3, 0.06], largestInrushA: 1, ratingA: 2.5, reservePct: 20 },
  run: ({ loadsA, largestInrushA, ratingA, reservePct }) => {
    const totalA = loadsA.reduce((sum, x) => sum + x, 0);
    const withInrushA = totalA + largestInrushA;
    return {
      totalA,
      withInrushA,
      loadPct: (100 * totalA) / ratingA,
      ok: totalA <= ratingA * (1 - reservePct / 100) && withInrushA <= ratingA,
    };
  },
});
