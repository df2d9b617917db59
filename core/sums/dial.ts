import {
  between,
  calculation,
  choice,
  positive,
  result,
  upTo,
  type Fields,
} from '../calculation/index.js';
import { shaftSpeed } from '../motor/index.js';

interface Dial {
  potOhm: number;
  inputOhm: number;
  sourceOhm: number;
  referenceV: number;
  wiper: string;
  swapped: boolean;
}

const dialArgs = {
  potOhm: positive('potentiometer', 'Ω', 1e7),
  inputOhm: positive('input', 'Ω', 1e9),
  sourceOhm: upTo('source of the reference', 'Ω', 1e6, { fallback: 0 }),
  referenceV: positive('reference', 'V', 100, { fallback: 10 }),
  wiper: choice('wiper', ['ok', 'open'], 'ok'),
  swapped: { unit: '', title: 'ends swapped', kind: 'flag', fallback: false },
} as const;

/** Voltage at the wiper with a load on it; the dial runs from 0 to 1. */
function wiperVolts(
  { potOhm, sourceOhm, referenceV, swapped }: Dial,
  dial: number,
  loadOhm: number,
): number {
  const x = swapped ? 1 - dial : dial;
  const lower = x * potOhm;
  const below = lower === 0 ? 0 : 1 / (1 / lower + 1 / loadOhm);
  return (referenceV * below) / (sourceOhm + (1 - x) * potOhm + below);
}

/**
 * Voltage at the wiper of a dial that an input loads.
 *
 * @example dialLoading.run({ potOhm: 10000, inputOhm: 20000, sourceOhm: 0, referenceV: 10, dial: 2 / 3, wiper: 'ok', swapped: false }).wiperV // 6
 */
export const dialLoading = calculation<
  Dial & { dial: number },
  { wiperV: number; idealV: number; loadingErrorPct: number }
>({
  name: 'dialLoading',
  title: 'Dial loaded by the input',
  args: { ...dialArgs, dial: between('dial, 0 to 1', '', 0, 1) },
  results: {
    wiperV: result('at the input', 'V'),
    idealV: result('without the input', 'V'),
    loadingErrorPct: result('loading error of the reference', '%'),
  },
  formula:
    'network of source, track above and below the wiper, and input; error in % of the reference voltage',
  source:
    'Kirchhoff; for R/R_in ≤ 0.1 the error is largest near 2/3 of the dial, about −100·(4/27)·R/R_in %',
  example: { potOhm: 5000, inputOhm: 20_000, dial: 0.5 },
  run: ({ dial, ...network }) => {
    const idealV = wiperVolts(network, dial, Infinity);
    const wiperV = network.wiper === 'open' ? 0 : wiperVolts(network, dial, network.inputOhm);
    return { wiperV, idealV, loadingErrorPct: (100 * (wiperV - idealV)) / network.referenceV };
  },
});

/** Volts, frequency and speed at every mark of a dial, loaded as it is. */
export const dialChart = calculation<
  Dial & {
    maxHz: number;
    minHz: number;
    marks: number;
    poles: number;
    ratedHz: number;
    ratedRpm?: number;
    loadTorquePct: number;
  },
  { rows: Fields[]; worstErrorPct: number }
>({
  name: 'dialChart',
  title: 'Dial to speed chart',
  args: {
    ...dialArgs,
    maxHz: positive('frequency at the top of the reference', 'Hz', 1000),
    minHz: upTo('frequency at zero volts', 'Hz', 1000, { fallback: 0 }),
    marks: between('divisions of the dial', '', 1, 100, { whole: true }),
    poles: between('poles', '', 2, 24, { whole: true, fallback: 4 }),
    ratedHz: positive('rated frequency', 'Hz', 400, { fallback: 50 }),
    ratedRpm: positive('rated speed; left out, the speed of the field is shown', 'rpm', 30_000, {
      optional: true,
    }),
    loadTorquePct: upTo('load torque', '%', 200, { fallback: 100 }),
  },
  results: {
    rows: result('dial, volts, frequency, speed'),
    worstErrorPct: result('largest loading error', '%'),
  },
  formula: 'each mark: loaded dial → volts → f = f_0 + U/U_ref·(f_max − f_0) → speed with slip',
  source: 'Kirchhoff; slip proportional to torque (IEEE Std 112 equivalent circuit)',
  example: { potOhm: 5000, inputOhm: 20_000, maxHz: 50, marks: 10, ratedRpm: 1440 },
  run: ({ maxHz, minHz, marks, poles, ratedHz, ratedRpm, loadTorquePct, ...network }) => {
    let worstErrorPct = 0;
    const rows = Array.from({ length: marks + 1 }, (_, i) => {
      const dial = i / marks;
      const { wiperV, loadingErrorPct } = dialLoading.run({ ...network, dial });
      if (Math.abs(loadingErrorPct) > Math.abs(worstErrorPct)) worstErrorPct = loadingErrorPct;
      const hz = minHz + (wiperV / network.referenceV) * (maxHz - minHz);
      const speed = shaftSpeed.run({
        hz,
        poles,
        ratedHz,
        ratedRpm: ratedRpm ?? (120 * ratedHz) / poles,
        loadTorquePct,
      });
      return { dial, volts: wiperV, hz, rpm: speed.shaftRpm };
    });
    return { rows, worstErrorPct };
  },
});
