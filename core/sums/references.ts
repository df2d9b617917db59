import {
  between,
  calculation,
  CalculationError,
  choice,
  positive,
  result,
  upTo,
} from '../calculation/index.js';
import { scaleAnalogue } from '../drive/index.js';

const maxHz = positive('highest frequency', 'Hz', 1000);
const hz = result('frequency', 'Hz');
const unlimited = result('without the limits', 'Hz');

/**
 * Frequency of an input with bias and gain, as the two usual definitions read them.
 *
 * @example analogBiasGain.run({ inputPct: 50, biasPct: 10, gainPct: 100, maxHz: 50, definition: 'twoPoint' }).hz // 27.5
 */
export const analogBiasGain = calculation<
  { inputPct: number; biasPct: number; gainPct: number; maxHz: number; definition: string },
  { hz: number; hzUnclamped: number }
>({
  name: 'analogBiasGain',
  title: 'Bias and gain of an analogue input',
  args: {
    inputPct: between('signal', '%', -100, 200),
    biasPct: between('bias', '%', -300, 300),
    gainPct: between('gain', '%', -1000, 1000),
    maxHz,
    definition: choice('what bias and gain mean', ['twoPoint', 'slopeOffset']),
  },
  results: { hz, hzUnclamped: unlimited },
  formula:
    'two points: bias is the output at 0 %, gain the output at 100 %;  slope and offset: output = gain·input + bias',
  source: 'the two definitions in use; the device’s manual says which',
  confirm: 'Which definition the device uses: try 0 % and 50 % before relying on it.',
  example: { inputPct: 50, biasPct: 10, gainPct: 100, maxHz: 50, definition: 'twoPoint' },
  run: (a) => {
    const pct =
      a.definition === 'twoPoint'
        ? a.biasPct + ((a.gainPct - a.biasPct) * a.inputPct) / 100
        : (a.gainPct * a.inputPct) / 100 + a.biasPct;
    const hzUnclamped = (pct / 100) * a.maxHz;
    return { hz: Math.min(Math.max(hzUnclamped, 0), a.maxHz), hzUnclamped };
  },
});

/** What the drive does with a live-zero signal below its threshold. */
export const signalLoss = calculation<
  {
    x: number;
    lossBelow: number;
    xLow: number;
    xHigh: number;
    hzAtLow: number;
    hzAtHigh: number;
    action: string;
    lastHz?: number;
    presetHz?: number;
    minHz?: number;
  },
  { lost: boolean; hz: number }
>({
  name: 'signalLoss',
  title: 'Loss of a live-zero signal',
  args: {
    x: between('signal', 'mA', -100, 100),
    lossBelow: between('lost below', 'mA', -100, 100),
    xLow: between('signal at the low end', 'mA', -100, 100),
    xHigh: between('signal at the high end', 'mA', -100, 100),
    hzAtLow: upTo('frequency at the low end', 'Hz', 1000),
    hzAtHigh: upTo('frequency at the high end', 'Hz', 1000),
    action: choice('what the drive does', ['fault', 'holdLast', 'preset', 'minimum', 'stop']),
    lastHz: upTo('last frequency before the loss', 'Hz', 1000, { optional: true }),
    presetHz: upTo('preset frequency', 'Hz', 1000, { optional: true }),
    minHz: upTo('lowest frequency', 'Hz', 1000, { optional: true }),
  },
  results: { lost: result('signal lost'), hz },
  formula:
    'lost when x is below the threshold; then fault and stop give 0 Hz, the others their own frequency',
  source: 'live zero of IEC 60381-1; the action is a setting of the device',
  example: {
    x: 2.1,
    lossBelow: 3,
    xLow: 4,
    xHigh: 20,
    hzAtLow: 0,
    hzAtHigh: 50,
    action: 'holdLast',
    lastHz: 32,
  },
  run: ({ x, lossBelow, action, lastHz, presetHz, minHz, ...scale }) => {
    if (x >= lossBelow) return { lost: false, hz: scaleAnalogue(x, scale).hz };
    const named = {
      holdLast: ['lastHz', lastHz],
      preset: ['presetHz', presetHz],
      minimum: ['minHz', minHz],
    } as const;
    const own = named[action as keyof typeof named];
    if (!own) return { lost: true, hz: 0 };
    if (own[1] === undefined)
      throw new CalculationError(own[0], `${own[0]} is missing: this action needs it`);
    return { lost: true, hz: own[1] };
  },
});

/**
 * Frequency and direction of a reference on both sides of zero.
 *
 * @example bipolarReference.run({ voltsV: -5, fullScaleV: 10, deadbandV: 0.2, deadbandShape: 'step', maxHz: 50 }).hz // -25
 */
export const bipolarReference = calculation<
  { voltsV: number; fullScaleV: number; deadbandV: number; deadbandShape: string; maxHz: number },
  { hz: number }
>({
  name: 'bipolarReference',
  title: 'Reference on both sides of zero',
  args: {
    voltsV: between('reference', 'V', -100, 100),
    fullScaleV: positive('full scale', 'V', 100, { fallback: 10 }),
    deadbandV: upTo('dead band to each side of zero', 'V', 50, { fallback: 0 }),
    deadbandShape: choice('outside the dead band', ['step', 'shifted'], 'step'),
    maxHz,
  },
  results: { hz: result('frequency, negative in reverse', 'Hz') },
  formula:
    'step: 0 inside the dead band, U/U_full·f_max outside;  shifted: the slope begins at the edge of the band',
  source: 'linear scaling of an analogue reference, held at ± the highest frequency',
  example: { voltsV: -5, deadbandV: 0.2, maxHz: 50 },
  run: ({ voltsV, fullScaleV, deadbandV, deadbandShape, maxHz: top }) => {
    if (deadbandV >= fullScaleV)
      throw new CalculationError(
        'deadbandV',
        `deadbandV must be below ${fullScaleV} V, the full scale`,
      );
    const size = Math.abs(voltsV);
    if (size <= deadbandV) return { hz: 0 };
    const share =
      deadbandShape === 'step' ? size / fullScaleV : (size - deadbandV) / (fullScaleV - deadbandV);
    return { hz: Math.sign(voltsV) * Math.min(share, 1) * top };
  },
});
