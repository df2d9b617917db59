import { calculation } from '../calculation/index.js';
import { scaleAnalogue } from '../drive/index.js';

const signal = { unit: '', min: -1000, max: 1000 } as const;
const ends = {
  xLow: { ...signal, title: 'signal at the low end' },
  xHigh: { ...signal, title: 'signal at the high end' },
  hzAtLow: { unit: 'Hz', title: 'frequency at the low end', min: 0, max: 1000 },
  hzAtHigh: { unit: 'Hz', title: 'frequency at the high end', min: 0, max: 1000 },
};
const hz = { unit: 'Hz', title: 'frequency' };

/** Frequency that an analogue signal asks for. */
export const analogScale = calculation<
  { x: number; xLow: number; xHigh: number; hzAtLow: number; hzAtHigh: number },
  { hz: number; hzUnclamped: number; signalPct: number }
>({
  name: 'analogScale',
  title: 'Analogue signal to frequency',
  args: { x: { ...signal, title: 'signal' }, ...ends },
  results: {
    hz,
    hzUnclamped: { unit: 'Hz', title: 'without the limits' },
    signalPct: { unit: '%', title: 'share of the span' },
  },
  formula: 'f = f_low + (x − x_low)/(x_high − x_low)·(f_high − f_low), held between the two ends',
  source: 'linear scaling of an analogue reference',
  example: { x: 12, xLow: 4, xHigh: 20, hzAtLow: 0, hzAtHigh: 50 },
  run: ({ x, ...scale }) => ({
    ...scaleAnalogue(x, scale),
    signalPct: (100 * (x - scale.xLow)) / (scale.xHigh - scale.xLow),
  }),
});

/** Signal needed for a frequency. */
export const analogScaleInverse = calculation<
  { hz: number; xLow: number; xHigh: number; hzAtLow: number; hzAtHigh: number },
  { x: number }
>({
  name: 'analogScaleInverse',
  title: 'Frequency to analogue signal',
  args: { hz: { unit: 'Hz', title: 'frequency', min: 0, max: 1000 }, ...ends },
  results: { x: { unit: '', title: 'signal' } },
  formula: 'x = x_low + (f − f_low)/(f_high − f_low)·(x_high − x_low)',
  source: 'linear scaling of an analogue reference',
  example: { hz: 25, xLow: 4, xHigh: 20, hzAtLow: 0, hzAtHigh: 50 },
  run: (a) => ({
    x: a.xLow + ((a.hz - a.hzAtLow) / (a.hzAtHigh - a.hzAtLow)) * (a.xHigh - a.xLow),
  }),
});
