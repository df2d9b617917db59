import {
  handLine,
  sortedEntries,
  standing,
  type Evidence,
  type EvidenceOf,
  type Job,
} from '../job/index.js';

/** A wire of the plan as a line of the hand list: landed by whom, or landed as it was planned before. */
export interface HandLine {
  readonly id: string;
  readonly cable: string;
  /** The tick that stands for it; undefined while it is to do. */
  readonly landed: EvidenceOf<'handTick'> | undefined;
  /** It was landed, and its ends or its size were planned otherwise since. */
  readonly stale: boolean;
}

/** Every wire of the adopted plan with the tick that stands for it, in the order of the wires' ids. */
export function handList(job: Job, evidence: readonly Evidence[]): HandLine[] {
  const landed = standing(evidence, 'landed');
  return sortedEntries(job.adopted?.wires ?? {}).map(([id, { cable }]) => {
    const line = handLine(id, job);
    return { id, cable: cable ?? '', landed: landed.of(line), stale: landed.stale(line) };
  });
}

/**
 * The wires that are landed, where only some of them are.
 *
 * @returns undefined where no wire is ticked, or all are: then the whole job is what is tested
 */
export function landedSection(
  job: Job,
  evidence: readonly Evidence[],
): ReadonlySet<string> | undefined {
  const lines = handList(job, evidence);
  const landed = lines.filter((l) => l.landed);
  if (landed.length === 0 || landed.length === lines.length) return undefined;
  return new Set(landed.map(({ id }) => id));
}
