import type { Tolerances } from '../job/index.js';

/** Share of the highest speed at which stops are tried. */
export const BUMP_SHARE = 0.2;

/** What of a context these need: the tolerances that count for its job. */
interface Judged {
  readonly within: Tolerances;
}

/** Tolerance of a timed ramp, s. */
export const rampTolerance = ({ within }: Judged, s: number): number =>
  Math.max(within.rampS, s * within.rampShare);

/** Tolerance of a time to rest, s. */
export const restTolerance = ({ within }: Judged, s: number): number =>
  Math.max(within.rampS, s * within.restShare);
