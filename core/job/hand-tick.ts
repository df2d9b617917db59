import type { Evidence, EvidenceBody, EvidenceOf } from './evidence.js';
import { hashOf } from './hash.js';
import type { Job } from './job.js';

/** What hands confirm of a line: landed and tugged, or tightened with the tool to the maker's torque. */
export type Ticked = 'landed' | 'tugged' | 'torque';

/**
 * A line of the hand list with what it is to be: a tick says nothing of what is planned otherwise since.
 *
 * @param basis what the tick rests on
 * @example lineOf('link:CL', ['COM to 0E']) // 'link:CL@3f0a…'
 */
export function lineOf(id: string, basis: readonly unknown[]): string {
  return `${id}@${hashOf(basis).slice(0, 16)}`;
}

/**
 * The line of a wire: it rests on its two ends and its size.
 *
 * @example handLine('w12', job) // 'w12@3f0a…'
 */
export function handLine(id: string, job: Job): string {
  const wire = job.adopted?.wires[id];
  return lineOf(id, [wire?.from, wire?.to, wire?.size]);
}

/**
 * The body of a tick that covers some lines with one touch.
 *
 * @example open.record('handTick', 'hand', tickOf([line.line], 'landed', 'cable'))
 */
export function tickOf(
  lines: readonly string[],
  act: Ticked,
  by: EvidenceBody<'handTick'>['by'],
  undone = false,
): EvidenceBody<'handTick'> {
  return {
    version: 1,
    act,
    by,
    lines: [...lines],
    basis: hashOf(lines),
    ...(undone ? { undone } : {}),
  };
}

type Tick = EvidenceOf<'handTick'>;

/** Ticks of one act that stand: by line, and the ids that have been ticked in any form. */
export interface Standing {
  readonly of: (line: string) => Tick | undefined;
  /** The line was ticked when it was planned otherwise. */
  readonly stale: (line: string) => boolean;
}

const idOf = (line: string): string => line.slice(0, line.lastIndexOf('@'));

/**
 * The ticks of an act that stand, whatever order they arrived in.
 *
 * @example standing(evidence, 'landed').of(handLine('w12', job))?.author.name
 */
export function standing(evidence: readonly Evidence[], act: Ticked): Standing {
  const stands = new Map<string, Tick>();
  const once = new Set<string>();
  const ticks = evidence
    .filter((e): e is Tick => e.kind === 'handTick' && e.body.act === act)
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  for (const tick of ticks)
    for (const line of tick.body.lines)
      if (tick.body.undone) {
        stands.delete(line);
        once.delete(idOf(line));
      } else {
        stands.set(line, tick);
        once.add(idOf(line));
      }
  return {
    of: (line) => stands.get(line),
    stale: (line) => !stands.has(line) && once.has(idOf(line)),
  };
}
