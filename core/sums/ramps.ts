import { calculation } from '../calculation/index.js';
import { planRamp } from '../drive/index.js';

const frequency = (title: string) => ({ unit: 'Hz', title, min: 0, max: 1000 });
const maxHz = { unit: 'Hz', title: 'frequency the ramp times refer to', above: 0, max: 1000 };
const seconds = (title: string) => ({ unit: 's', title, min: 0, max: 36_000 });

/** Time of a change of frequency. */
export const rampTime = calculation<
  { fromHz: number; toHz: number; maxHz: number; accelS: number; decelS: number },
  { timeS: number; slopeHzPerS: number }
>({
  name: 'rampTime',
  title: 'Time of a ramp',
  args: {
    fromHz: frequency('from'),
    toHz: frequency('to'),
    maxHz,
    accelS: { ...seconds('acceleration time'), above: 0 },
    decelS: { ...seconds('deceleration time'), above: 0 },
  },
  results: { timeS: { unit: 's', title: 'time' }, slopeHzPerS: { unit: 'Hz/s', title: 'slope' } },
  formula: 't = T·|Δf|/f_ref',
  source: 'ramp times are given for 0 ↔ reference frequency',
  example: { fromHz: 0, toHz: 40, maxHz: 50, accelS: 5, decelS: 8 },
  run: ({ fromHz, toHz, maxHz: reference, accelS, decelS }) => {
    const slopeHzPerS = toHz >= fromHz ? reference / accelS : -reference / decelS;
    return { timeS: Math.abs((toHz - fromHz) / slopeHzPerS), slopeHzPerS };
  },
});

/** Time of a change of frequency with rounded ends. */
export const sCurveTime = calculation<
  { fromHz: number; toHz: number; maxHz: number; accelS: number; sPctEachEnd: number },
  { timeS: number; peakSlopeHzPerS: number }
>({
  name: 'sCurveTime',
  title: 'Time of a rounded ramp',
  args: {
    fromHz: frequency('from'),
    toHz: frequency('to'),
    maxHz,
    accelS: { ...seconds('ramp time'), above: 0 },
    sPctEachEnd: { unit: '%', title: 'of the ramp time rounded at each end', min: 0, max: 100 },
  },
  results: {
    timeS: { unit: 's', title: 'time' },
    peakSlopeHzPerS: { unit: 'Hz/s', title: 'steepest slope' },
  },
  formula:
    't = T·(Δf/f_ref + p/100);  for steps that never reach the full slope t = 2·√(Δf·T²·(p/100)/f_ref)',
  source: 'constant change of slope over p % of the ramp time at each end',
  example: { fromHz: 0, toHz: 50, maxHz: 50, accelS: 5, sPctEachEnd: 20 },
  run: ({ fromHz, toHz, maxHz: reference, accelS, sPctEachEnd }) => {
    const ramp = planRamp(0, fromHz, toHz, accelS, reference, sPctEachEnd);
    const size = Math.abs(toHz - fromHz);
    const roundS = (accelS * sPctEachEnd) / 100;
    const slope = reference / accelS;
    const short = size < slope * roundS;
    const peakSlopeHzPerS = short ? Math.sqrt((size * slope) / roundS) : size === 0 ? 0 : slope;
    return { timeS: ramp.endUs / 1e6, peakSlopeHzPerS };
  },
});

/** Time from full speed one way to full speed the other. */
export const reversalTime = calculation<
  {
    forwardHz: number;
    reverseHz: number;
    maxHz: number;
    accelS: number;
    decelS: number;
    deadMs: number;
  },
  { toZeroS: number; startReverseS: number; totalS: number }
>({
  name: 'reversalTime',
  title: 'Time of a reversal',
  args: {
    forwardHz: frequency('forward'),
    reverseHz: frequency('reverse'),
    maxHz,
    accelS: seconds('acceleration time'),
    decelS: seconds('deceleration time'),
    deadMs: { unit: 'ms', title: 'pause at zero', min: 0, max: 3_600_000 },
  },
  results: {
    toZeroS: { unit: 's', title: 'to zero' },
    startReverseS: { unit: 's', title: 'reverse begins' },
    totalS: { unit: 's', title: 'at speed in reverse' },
  },
  formula: 't = f1·T_dec/f_ref + pause + f2·T_acc/f_ref',
  source: 'never an instantaneous reversal: down, pause, up',
  example: { forwardHz: 40, reverseHz: 20, maxHz: 50, accelS: 5, decelS: 8, deadMs: 500 },
  run: ({ forwardHz, reverseHz, maxHz: reference, accelS, decelS, deadMs }) => {
    const toZeroS = (forwardHz * decelS) / reference;
    const startReverseS = toZeroS + deadMs / 1000;
    return { toZeroS, startReverseS, totalS: startReverseS + (reverseHz * accelS) / reference };
  },
});
