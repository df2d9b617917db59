import { handLine, sortedEntries, type Evidence, type EvidenceOf, type Job } from '../job/index.js';

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
  const stands = new Map<string, EvidenceOf<'handTick'>>();
  const once = new Set<string>();
  const ticks = evidence
    .filter((e): e is EvidenceOf<'handTick'> => e.kind === 'handTick' && e.body.act === 'landed')
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  for (const tick of ticks)
    for (const line of tick.body.lines) {
      const [id] = line.split('@');
      if (tick.body.undone) {
        stands.delete(line);
        once.delete(id);
      } else {
        stands.set(line, tick);
        once.add(id);
      }
    }
  return sortedEntries(job.adopted?.wires ?? {}).map(([id, { cable }]) => {
    const landed = stands.get(handLine(id, job));
    return { id, cable: cable ?? '', landed, stale: !landed && once.has(id) };
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
