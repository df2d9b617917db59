import type { PunchCategory } from '../job/index.js';

/** By when an open point has to be closed, in words. */
export const punchNames: Readonly<Record<PunchCategory, string>> = {
  beforePower: 'before power',
  beforeProduction: 'before production',
  later: 'later',
};
