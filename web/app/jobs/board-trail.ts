import type { Missing } from '../compute/plan.worker';
import type { BoardEntry } from '../job-state/api';

/** Trail of one row and its next act, from what the core finds missing in a job without opening it. */
export function boardTrail(
  { job, evidence }: BoardEntry,
  { plate, scheme }: Missing,
): {
  marks: readonly { name: string; state: 'done' | 'part' | 'open' }[];
  next: string;
} {
  const grade = ({ needed, missing }: Missing['plate']): 'done' | 'part' | 'open' =>
    missing === 0 ? 'done' : missing < needed ? 'part' : 'open';
  const marks = [
    { name: 'Plate', state: grade(plate) },
    { name: 'Scheme', state: grade(scheme) },
    { name: 'Land', state: job.adopted ? 'done' : 'open' },
    { name: 'Tests', state: evidence > 0 ? 'part' : 'open' },
  ] as const;
  const next =
    plate.missing > 0
      ? 'Enter the plates'
      : scheme.missing > 0
        ? 'Say how it must start and stop'
        : evidence === 0
          ? 'Key and test'
          : 'Go on testing';
  return { marks, next };
}
