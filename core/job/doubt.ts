import type { Expectation } from './step.js';

/** Units in which nothing can be less than nothing. */
const neverNegative = ['Ω', 'kΩ', 'MΩ', 'A', 'mA', 's', 'rpm', 'Hz'];
/** So many times the expected value is another quantity, another place or a slip of the pen. */
const TOO_LARGE = 10;
/** Where next to nothing is expected, this much is still possible, in the unit. */
const LEAST_LARGE = 50;

/** Why a reading is asked about before it is kept. */
export type Doubt = 'negative' | 'tooLarge';

/**
 * What makes a reading hard to believe: less than nothing of what cannot be, or more than ten times what is expected.
 *
 * @param expect what was expected of it
 * @returns undefined where it may well be so, right or wrong
 * @example readingDoubt({ kind: 'range', lo: 23, hi: 25, nominal: 24, unit: 'V' }, 5000) // 'tooLarge'
 */
export function readingDoubt(expect: Expectation, reading: number): Doubt | undefined {
  if (expect.kind !== 'range') return undefined;
  if (reading < 0 && neverNegative.includes(expect.unit)) return 'negative';
  const most = Math.max(LEAST_LARGE, TOO_LARGE * Math.max(Math.abs(expect.nominal), expect.hi));
  return Math.abs(reading) > most ? 'tooLarge' : undefined;
}
