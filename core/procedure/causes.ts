import type { Profile, Value } from '../catalogue/index.js';
import { candidateFaults, type Candidate } from '../faults/index.js';
import { applyFault, asBuilt, type Panel } from '../installation/index.js';
import { faultKey, type Fault, type Job, type ProcedureStep } from '../job/index.js';
import type { Trial } from '../trials/index.js';
import { liveOf } from './live/index.js';
import { simulatedOf } from './live/simulated.js';
import { PanelRuns } from './panel/runs.js';

/** An answer that stands: what was seen at a step. */
export interface Told {
  readonly step: ProcedureStep;
  readonly value: Value;
}

/** Something that would explain a reading, and how well. */
export interface Cause {
  /** What is wrong: several where nothing read so far tells them apart, and one act at one place mends each. */
  readonly faults: readonly Fault[];
  /** How likely it is among all that may be wrong, 0 … 1. */
  readonly share: number;
  /** Of the answers given so far, those it would have given too. */
  readonly explains: number;
  readonly of: number;
}

/** A mistaken observation. */
const MISTAKEN = 0.02;

/** Whether a reading and a simulated value are the same: numbers within max(2 %, 0.2) of the unit. */
function agree(told: Value, seen: Value): boolean {
  if (typeof seen === 'number' && typeof told === 'number')
    return Math.abs(told - seen) <= Math.max(0.2, 0.02 * Math.abs(seen));
  return told === seen;
}

/** Whether a panel would have given the answer; undefined where it cannot be told. */
function gives(panel: PanelRuns, { step, value }: Told, trial: Trial): boolean | undefined {
  const seen = panel.seen(step, trial);
  return seen === undefined ? undefined : agree(value, seen);
}

/**
 * The likeliest single causes of a reading that is not what was expected, from simulating each under the very acts that
 * were done: prior times agreement with this and every other answer given so far, where one answer in fifty may be
 * mistaken.
 *
 * @param failed the answer that is to be explained; a cause that would not have given it is none
 * @param others answers that stand beside it
 * @returns the likeliest first, each explaining every answer but at most one; empty where nothing single does, or the step
 *   looks at nothing simulated
 * @example likelyCauses(job, profile, { step, value: 'off' }, [])[0].faults[0] // { kind: 'open', wire: 'w17' }
 */
export function likelyCauses(
  job: Job,
  profile: Profile,
  failed: Told,
  others: readonly Told[],
  most = 3,
): Cause[] {
  const trials = new Map(
    [...liveOf(job, profile).trials, ...simulatedOf(job, profile).trials].map((t) => [t.id, t]),
  );
  const trialOf = ({ step: { from } }: Told): Trial | undefined =>
    from.kind === 'simulation' ? trials.get(from.script) : undefined;
  const [own, panel] = [trialOf(failed), asBuilt(job, profile)];
  if (!own) return [];
  const fitting: { candidate: Candidate; supposed: PanelRuns }[] = [];
  for (const candidate of candidateFaults(job, profile, panel, numberRead(failed))) {
    const supposed = new PanelRuns(job, profile, applyFault(panel, candidate.fault));
    if (gives(supposed, failed, own)) fitting.push({ candidate, supposed });
  }
  const weighed = fitting.map(({ candidate, supposed }) =>
    weighedBy(
      candidate,
      others.map((told) => {
        const trial = trialOf(told);
        return trial && gives(supposed, told, trial);
      }),
    ),
  );
  return ranked(weighed, panel, most);
}

/** What was read as a number, with its unit. */
function numberRead({
  step: { expect },
  value,
}: Told): { value: number; unit: string } | undefined {
  return expect?.kind === 'range' && typeof value === 'number'
    ? { value, unit: expect.unit }
    : undefined;
}

/** The likeliest causes of those that explain every answer but at most one. */
export const ranked = (weighed: readonly Weighed[], panel: Panel, most: number): Cause[] =>
  byPlace(
    weighed.filter(({ explains, of }) => explains >= of - 1),
    panel,
  ).slice(0, most);

/**
 * How well a cause explains the answers beside the one that is to be explained.
 *
 * @param given for each of them whether it would have given it; undefined where it cannot be told
 */
export function weighedBy(
  { fault, prior }: Candidate,
  given: readonly (boolean | undefined)[],
): Weighed {
  let [explains, of, weight] = [1, 1, prior];
  for (const yes of given) {
    if (yes === undefined) continue;
    of++;
    if (yes) explains++;
    weight *= yes ? 1 - MISTAKEN : MISTAKEN;
  }
  return { fault, weight, explains, of };
}

export interface Weighed {
  readonly fault: Fault;
  readonly weight: number;
  readonly explains: number;
  readonly of: number;
}

/** Causes at one place put together, the likeliest first. */
function byPlace(weighed: readonly Weighed[], panel: Panel): Cause[] {
  const sum = weighed.reduce((total, c) => total + c.weight, 0);
  const places = new Map<string, Weighed[]>();
  for (const c of [...weighed].sort((x, y) => y.weight - x.weight)) {
    const place = placeOf(c.fault, panel);
    const own = places.get(place) ?? [];
    // What explains less than the best of its place says nothing more about it.
    if (own.length === 0 || own[0].explains === c.explains) places.set(place, [...own, c]);
  }
  return [...places.values()]
    .map((own) => ({
      faults: own.map(({ fault }) => fault),
      share: own.reduce((total, c) => total + c.weight, 0) / sum,
      explains: own[0].explains,
      of: own[0].of,
    }))
    .sort((x, y) => y.share - x.share);
}

/** Where a fault is mended: a wire with both its ends, the leads of the motor or the feed as a whole, a contact, a part. */
function placeOf(f: Fault, { wires }: Panel): string {
  const leads = (wire: string, how: string): string => {
    const kind = wires[wire]?.class;
    return kind === 'motor' || kind === 'mains' ? `${how} ${kind}` : `${how} ${wire}`;
  };
  switch (f.kind) {
    case 'open':
    case 'landed':
      return leads(f.wire, 'wire');
    case 'swapped':
      return leads(f.wires[0], `exchanged with ${f.wires[1]}`).replace(
        /^.* (motor|mains)$/u,
        'exchanged $1',
      );
    case 'loose':
      return `joint ${f.at}`;
    case 'stuck':
    case 'wrongContact':
      return `contact ${f.device}:${f.contact}`;
    default:
      return faultKey(f);
  }
}
