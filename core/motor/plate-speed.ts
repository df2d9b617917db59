import { calculation } from '../calculation/index.js';

/**
 * Pole pairs of a motor from its plate: the largest number whose synchronous speed is not below the rated one.
 *
 * @param hz rated frequency
 * @param rpm rated speed
 * @returns undefined where no number of poles runs at that speed: the speed lies above 60·f
 * @example polePairsOf(50, 1440) // 2
 */
export function polePairsOf(hz: number, rpm: number): number | undefined {
  const pairs = Math.floor((60 * hz) / rpm);
  return pairs >= 1 && Number.isFinite(pairs) ? pairs : undefined;
}

/**
 * Pole pairs, slip and rated torque from a plate: the synchronous speed lies just above the plate's.
 *
 * @example plateSpeed.run({ hz: 50, rpm: 1440, powerKw: 2.2 }) // { polePairs: 2, synchronousRpm: 1500, slipPct: 4, torqueNm: 14.59 }
 */
export const plateSpeed = calculation<
  { hz: number; rpm: number; powerKw: number },
  { polePairs: number; synchronousRpm: number; slipPct: number; torqueNm: number }
>({
  name: 'plateSpeed',
  title: 'Pole pairs, slip and rated torque',
  args: {
    hz: { unit: 'Hz', title: 'plate frequency', above: 0, max: 400 },
    rpm: { unit: 'rpm', title: 'plate speed', above: 0, max: 24_000 },
    powerKw: { unit: 'kW', title: 'rated power', above: 0, max: 10_000 },
  },
  results: {
    polePairs: { unit: '', title: 'pole pairs' },
    synchronousRpm: { unit: 'rpm', title: 'synchronous speed' },
    slipPct: { unit: '%', title: 'rated slip' },
    torqueNm: { unit: 'Nm', title: 'rated torque' },
  },
  formula: 'p = ⌊60·f/n⌋;  n_s = 60·f/p;  s = (n_s − n)/n_s;  T = P/(2π·n/60)',
  source: 'IEC 60034-1; synchronous speed of a rotating field',
  example: { hz: 50, rpm: 1460, powerKw: 7.5 },
  run: ({ hz, rpm, powerKw }) => {
    const polePairs = polePairsOf(hz, rpm) ?? 0;
    const synchronousRpm = (60 * hz) / Math.max(1, polePairs);
    return {
      polePairs,
      synchronousRpm,
      slipPct: (100 * (synchronousRpm - rpm)) / synchronousRpm,
      torqueNm: (powerKw * 1000) / ((2 * Math.PI * rpm) / 60),
    };
  },
});
