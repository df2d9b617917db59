import { between, calculation, positive, result, upTo } from '../calculation/index.js';

/**
 * Voltage a loop current makes across a shunt, with and without the input beside it.
 *
 * @example shuntReading.run({ mA: 12, shuntOhm: 250, inputOhm: 10000 }).idealV // 3
 */
export const shuntReading = calculation<
  { mA: number; shuntOhm: number; inputOhm: number },
  { idealV: number; loadedV: number }
>({
  name: 'shuntReading',
  title: 'Loop current across a shunt',
  args: {
    mA: between('loop current', 'mA', -100, 100),
    shuntOhm: positive('shunt', 'Ω', 1e5),
    inputOhm: positive('input beside it', 'Ω', 1e9),
  },
  results: { idealV: result('shunt alone', 'V'), loadedV: result('with the input', 'V') },
  formula: 'U = I·R;  with the input U = I·R·R_in/(R + R_in)',
  source: 'Ohm; two resistors in parallel',
  example: { mA: 12, shuntOhm: 250, inputOhm: 20_000 },
  run: ({ mA, shuntOhm, inputOhm }) => ({
    idealV: (mA * shuntOhm) / 1000,
    loadedV: ((mA / 1000) * shuntOhm * inputOhm) / (shuntOhm + inputOhm),
  }),
});

/** Smallest step a converter can make, and where a value lands on it. */
export const converterResolution = calculation<
  { bits: number; fullScale: number; x: number; maxHz: number },
  { count: number; step: number; quantised: number; stepHz: number }
>({
  name: 'converterResolution',
  title: 'Resolution of a converter',
  args: {
    bits: between('bits', '', 4, 24, { whole: true }),
    fullScale: positive('full scale', '', 1e6),
    x: upTo('value', '', 1e6),
    maxHz: positive('frequency at full scale', 'Hz', 1000),
  },
  results: {
    count: result('count'),
    step: result('one step'),
    quantised: result('value after conversion'),
    stepHz: result('one step as frequency', 'Hz'),
  },
  formula: 'count = round(x/full scale·(2^bits − 1));  step = full scale/(2^bits − 1)',
  source: 'uniform quantiser',
  example: { bits: 12, fullScale: 10, x: 5, maxHz: 50 },
  run: ({ bits, fullScale, x, maxHz }) => {
    const most = 2 ** bits - 1;
    const count = Math.min(Math.round((x / fullScale) * most), most);
    return {
      count,
      step: fullScale / most,
      quantised: (count * fullScale) / most,
      stepHz: maxHz / most,
    };
  },
});

/**
 * Frequency of a command given in the controller's own units: commanded/full scale = output/maximum.
 *
 * @example controllerFullScale.run({ command: 750, fullScale: 1500, maxHz: 50 }).hz // 25
 */
export const controllerFullScale = calculation<
  { command: number; fullScale: number; maxHz: number },
  { hz: number }
>({
  name: 'controllerFullScale',
  title: 'Command in the controller’s units',
  args: {
    command: between('command', '', -1e9, 1e9),
    fullScale: positive('full scale of the controller', '', 1e9),
    maxHz: positive('frequency at full scale', 'Hz', 1000),
  },
  results: { hz: result('frequency', 'Hz') },
  formula: 'f = command/full scale·f_max',
  source: 'proportion; check at half and at full scale',
  example: { command: 750, fullScale: 1500, maxHz: 50 },
  run: ({ command, fullScale, maxHz }) => ({ hz: (command / fullScale) * maxHz }),
});
