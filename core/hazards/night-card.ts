import type { Profile } from '../catalogue/index.js';
import type { Fault, Job } from '../job/index.js';
import { landingParts } from '../job/index.js';
import { contactsOf, parts } from '../parts/index.js';
import { grade, type FaultClass } from './sweep/classes.js';
import { Sweep, type SweepRow } from './sweep/sweep.js';

/** One likely fault of a machine in use: what is noticed, and what is behind it. */
export interface NightFault {
  /** What it does, and the act after which that shows as a mark. */
  readonly is: FaultClass;
  readonly shows: string | undefined;
  /** Part at whose contacts or terminals it lies; undefined for a wire between others. */
  readonly part: string | undefined;
  /** Everything there that gives the same picture. */
  readonly faults: readonly Fault[];
  /** How likely it is against the others. */
  readonly weight: number;
}

/**
 * How often a thing fails in use, against the others: estimates of practice, not statistics. What moves, what is worked and
 * what lies outside the panel wears.
 */
const wear = { field: 3, panel: 1, worked: 4, condition: 3, relay: 2, inside: 1 } as const;

/** Part that a fault is at: the station, a guard, a relay; wires inside the panel belong to none. */
function partOf(job: Job, { fault, subject, wire }: SweepRow['fault']): string | undefined {
  const adopted = job.adopted;
  if (!adopted) return undefined;
  if (wire === undefined) return subject;
  if (fault.kind !== 'open') return undefined;
  const { from, to } = adopted.wires[wire];
  const own = [from, to]
    .map((end) => landingParts(end).device)
    .filter((id) => id !== adopted.device && adopted.devices[id]);
  const moves = (id: string): boolean =>
    contactsOf(adopted.devices[id]) !== undefined || isCoil(adopted.devices[id].kind);
  return own.find(moves) ?? own[0];
}

const isCoil = (kind: string): boolean => parts[kind]?.coil !== undefined;

/** How likely one row is in use; nothing for what nobody notices, or what only hands at the panel do. */
function weightOf(job: Job, row: SweepRow): number {
  const { fault, wire, subject } = row.fault;
  if (row.worst === 'noEffect' || row.worst === 'hidden') return 0;
  if (fault.kind === 'short') return 0;
  const spec = wire === undefined ? undefined : job.adopted?.wires[wire];
  if (spec) return spec.cable ? wear.field : wear.panel;
  if (fault.kind === 'loose') return wear.panel;
  if (fault.kind === 'part') return wear.inside;
  const part = job.adopted?.devices[subject];
  const set = part && contactsOf(part);
  if (!set) return wear.relay;
  // A weld is rarer than a contact that no longer closes.
  return (set.momentary ? wear.worked : wear.condition) / 4;
}

/**
 * The likeliest faults of this very machine in use, from its sweep: rows of one part that look the same are one.
 *
 * @param most how many at most
 * @throws RangeError when the job has no adopted plan
 * @example nightCard(job, profile)[0].is // 'failsSafe'
 */
export function nightCard(job: Job, profile: Profile, most = 10): NightFault[] {
  const sweep = new Sweep(job, profile);
  const alike = new Map<string, NightFault>();
  for (const fault of sweep.faults) {
    if (fault.fault.kind === 'short' || isProtective(job, fault.wire)) continue;
    const row = sweep.judge(fault);
    const weight = weightOf(job, row);
    if (weight === 0) continue;
    const part = partOf(job, fault);
    const key = `${part ?? fault.subject} ${row.worst} ${row.shows ?? ''}`;
    const known = alike.get(key);
    alike.set(key, {
      is: row.worst,
      shows: row.shows,
      part,
      faults: [...(known?.faults ?? []), fault.fault],
      weight: (known?.weight ?? worked(job, part)) + weight,
    });
  }
  return [...alike.values()]
    .sort((x, y) => y.weight - x.weight || grade(y.is) - grade(x.is))
    .slice(0, most);
}

const isProtective = (job: Job, wire: string | undefined): boolean =>
  wire !== undefined && job.adopted?.wires[wire].class === 'pe';

/** What its own contacts add: they are worked, or watch something that moves. */
function worked(job: Job, part: string | undefined): number {
  const own = part === undefined ? undefined : job.adopted?.devices[part];
  const set = own && contactsOf(own);
  if (!own || part === job.adopted?.device) return 0;
  if (!set) return wear.relay;
  return set.momentary ? wear.worked : wear.condition;
}
