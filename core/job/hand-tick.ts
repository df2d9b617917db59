import type { EvidenceBody } from './evidence.js';
import { hashOf } from './hash.js';
import type { Job } from './job.js';

type Ticked = 'landed' | 'tugged' | 'torque';

/**
 * A line of the hand list with what it is to be: a tick says nothing of a wire that is planned otherwise since.
 *
 * @example handLine('w12', job) // 'w12@3f0a…'
 */
export function handLine(id: string, job: Job): string {
  const wire = job.adopted?.wires[id];
  return `${id}@${hashOf([wire?.from, wire?.to, wire?.size]).slice(0, 16)}`;
}

/**
 * The body of a tick that covers some wires with one touch.
 *
 * @example open.record('handTick', 'cable.W2', tickOf(job, ids, 'landed', 'cable'))
 */
export function tickOf(
  job: Job,
  ids: readonly string[],
  act: Ticked,
  by: EvidenceBody<'handTick'>['by'],
  undone = false,
): EvidenceBody<'handTick'> {
  const lines = ids.map((id) => handLine(id, job));
  return { version: 1, act, by, lines, basis: hashOf(lines), ...(undone ? { undone } : {}) };
}
