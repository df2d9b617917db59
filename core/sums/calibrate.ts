import { between, calculation, CalculationError, positive, result } from '../calculation/index.js';

interface Point {
  readonly x: number;
  readonly y: number;
}

/** Least-squares line through measured points, and what to turn to bring it onto the wanted one. */
export const calibrate = calculation<
  { points: readonly Point[]; idealGain: number; idealOffset: number; span: number },
  {
    gain: number;
    offset: number;
    r2: number;
    residuals: number[];
    maxResidualPct: number;
    maxErrorVsIdealPct: number;
    correctionGain: number;
    correctionOffset: number;
  }
>({
  name: 'calibrate',
  title: 'Calibration from measured points',
  args: {
    points: {
      unit: '',
      title: 'measured points',
      kind: 'records',
      items: [2, 1000],
      fields: { x: between('given', '', -1e9, 1e9), y: between('read', '', -1e9, 1e9) },
    },
    idealGain: between('wanted gain', '', -1e9, 1e9),
    idealOffset: between('wanted reading at zero', '', -1e9, 1e9),
    span: positive('span the errors refer to', '', 1e9),
  },
  results: {
    gain: result('gain'),
    offset: result('reading at zero'),
    r2: result('r²'),
    residuals: result('read − line, point by point'),
    maxResidualPct: result('worst distance from the line', '%'),
    maxErrorVsIdealPct: result('worst error as it stands', '%'),
    correctionGain: result('multiply the gain by'),
    correctionOffset: result('then add'),
  },
  formula:
    'gain = Σ(x−x̄)(y−ȳ)/Σ(x−x̄)²;  corrected reading = correction gain·reading + correction offset',
  source: 'ordinary least squares',
  confirm: 'Turn, then measure a second series: only that proves it.',
  example: {
    points: [
      { x: 4, y: 0.4 },
      { x: 12, y: 25.3 },
      { x: 20, y: 50.2 },
    ],
    idealGain: 3.125,
    idealOffset: -12.5,
    span: 50,
  },
  run: ({ points, idealGain, idealOffset, span }) => {
    const n = points.length;
    const mean = (pick: (p: Point) => number): number =>
      points.reduce((sum, p) => sum + pick(p), 0) / n;
    const mx = mean((p) => p.x);
    const my = mean((p) => p.y);
    const sxx = points.reduce((sum, p) => sum + (p.x - mx) ** 2, 0);
    if (sxx === 0) throw new CalculationError('points', 'points must have two different x');
    const gain = points.reduce((sum, p) => sum + (p.x - mx) * (p.y - my), 0) / sxx;
    const offset = my - gain * mx;
    const residuals = points.map((p) => p.y - (gain * p.x + offset));
    const syy = points.reduce((sum, p) => sum + (p.y - my) ** 2, 0);
    const worst = (errors: readonly number[]): number =>
      (100 * Math.max(...errors.map(Math.abs))) / span;
    if (gain === 0)
      throw new CalculationError(
        'points',
        'points do not rise: no correction can turn them into the wanted line',
      );
    const correctionGain = idealGain / gain;
    return {
      gain,
      offset,
      r2: syy === 0 ? 1 : 1 - residuals.reduce((sum, r) => sum + r * r, 0) / syy,
      residuals,
      maxResidualPct: worst(residuals),
      maxErrorVsIdealPct: worst(points.map((p) => p.y - (idealGain * p.x + idealOffset))),
      correctionGain,
      correctionOffset: idealOffset - correctionGain * offset,
    };
  },
});
