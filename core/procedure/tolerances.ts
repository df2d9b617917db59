import type { Job, Tolerances } from '../job/index.js';

/** Share of the highest speed at which stops are tried. */
export const BUMP_SHARE = 0.2;

/** What of a context these need: the tolerances that count for its job. */
interface Judged {
  readonly within: Tolerances;
}

/** Tolerance of a timed ramp, s. */
export const rampTolerance = ({ within }: Judged, s: number): number =>
  Math.max(within.rampS, s * within.rampShare);

/** Places of a dial between its stops are found by eye: so much of its travel; a signal is as exact as its source. */
export const placeTolerance = (
  { within, job }: Judged & { readonly job: Pick<Job, 'scheme'> },
  pct: number,
): number => {
  const byEye = job.scheme.speed === 'dial' || job.scheme.speed === 'panelDial';
  return byEye && pct > 0 && pct < 100 ? within.dialShare : 0;
};

/** Tolerance of a time to rest, s. */
export const restTolerance = ({ within }: Judged, s: number): number =>
  Math.max(within.rampS, s * within.restShare);
