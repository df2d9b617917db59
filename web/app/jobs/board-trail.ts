import type { Missing } from '../compute/plan.worker';
import type { BoardEntry } from '../job-state/api';

/** Trail of one row and its next act with the stage where it is done, from what the core finds missing without opening it. */
export function boardTrail(
  { job, evidence, closed }: BoardEntry,
  { plate, scheme }: Missing,
): {
  marks: readonly { name: string; state: 'done' | 'part' | 'open' }[];
  next: string;
  stage: 'plate' | 'scheme' | 'key' | 'live' | 'handover';
} {
  const grade = ({ needed, missing }: Missing['plate']): 'done' | 'part' | 'open' =>
    missing === 0 ? 'done' : missing < needed ? 'part' : 'open';
  const marks = [
    { name: 'Plate', state: grade(plate) },
    { name: 'Scheme', state: grade(scheme) },
    { name: 'Land', state: job.adopted ? 'done' : 'open' },
    { name: 'Tests', state: closed ? 'done' : evidence > 0 ? 'part' : 'open' },
  ] as const;
  if (closed) return { marks, next: `Issue ${closed} is signed`, stage: 'handover' };
  if (plate.missing > 0) return { marks, next: 'Enter the plates', stage: 'plate' };
  if (scheme.missing > 0) return { marks, next: 'Say how it must start and stop', stage: 'scheme' };
  return evidence === 0
    ? { marks, next: 'Key and test', stage: 'key' }
    : { marks, next: 'Go on testing', stage: 'live' };
}
