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
  results: { hz, hzUnclamped: { unit: 'Hz', title: 'without the limits' }, signalPct: { unit: '%', title: 'share of the span' } },
  formula: 'f = f_low + (x − x_low)/(x_high − x_low)·(f_high − f_low), held between the two ends',
  source: 'linear scaling of an analogue reference',
  run: ({ x, ...scale }) => ({ ...scaleAnalogue(x, scale), signalPct: (100 * (x - scale.xLow)) / (scale.xHigh - scale.xLow) }),
});

/** Signal needed for a frequency. */
export const analogScaleInverse = calculation<{ hz: number; xLow: number; xHigh: number; hzAtLow: number; hzAtHigh: number }, { x: number }>({
  name: 'analogScaleInverse',
  title: 'Frequency to analogue signal',
  args: { hz: { unit: 'Hz', title: 'frequency', min: 0, max: 1000 }, ...ends },
  results: { x: { unit: '', title: 'signal' } },
  formula: 'x = x_low + (f − f_low)/(f_high − f_low)·(x_high − x_low)',
  source: 'linear scaling of an analogue reference',
  run: (a) => ({ x: a.xLow + ((a.hz - a.hzAtLow) / (a.hzAtHigh - a.hzAtLow)) * (a.xHigh - a.xLow) }),
});

/** Voltage at the wiper of a dial that an input loads. */
export const dialLoading = calculation<
  { potOhm: number; inputOhm: number; sourceOhm: number; referenceV: number; dial: number; wiper: string; swapped: boolean },
  { wiperV: number; idealV: number; loadingErrorPct: number }
>({
  name: 'dialLoading',
  title: 'Dial loaded by the input',
  args: {
    potOhm: { unit: 'Ω', title: 'potentiometer', above: 0, max: 1e7 },
    inputOhm: { unit: 'Ω', title: 'input', above: 0, max: 1e9 },
    sourceOhm: { unit: 'Ω', title: 'source of the reference', min: 0, max: 1e6, fallback: 0 },
    referenceV: { unit: 'V', title: 'reference', above: 0, max: 100, fallback: 10 },
    dial: { unit: '', title: 'dial, 0 to 1', min: 0, max: 1 },
    wiper: { unit: '', title: 'wiper', kind: 'choice', choices: ['ok', 'open'], fallback: 'ok' },
    swapped: { unit: '', title: 'ends swapped', kind: 'flag', fallback: false },
  },
  results: {
    wiperV: { unit: 'V', title: 'at the input' },
    idealV: { unit: 'V', title: 'without the input' },
    loadingErrorPct: { unit: '%', title: 'loading error of the reference' },
  },
  formula: 'network of source, track above and below the wiper, and input; error in % of the reference voltage',
  source: 'Kirchhoff; for R/R_in ≤ 0.1 the error is largest near 2/3 of the dial, about −100·(4/27)·R/R_in %',
  run: ({ potOhm, inputOhm, sourceOhm, referenceV, dial, wiper, swapped }) => {
    const x = swapped ? 1 - dial : dial;
    const at = (loadOhm: number): number => {
      const lower = x * potOhm;
      const below = lower === 0 ? 0 : 1 / (1 / lower + 1 / loadOhm);
      return (referenceV * below) / (sourceOhm + (1 - x) * potOhm + below);
    };
    const idealV = at(Infinity);
    const wiperV = wiper === 'open' ? 0 : at(inputOhm);
    return { wiperV, idealV, loadingErrorPct: (100 * (wiperV - idealV)) / referenceV };
  },
});
