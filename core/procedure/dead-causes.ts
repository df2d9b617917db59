import type { Profile, Value } from '../catalogue/index.js';
import { candidateFaults } from '../faults/index.js';
import { applyFault, asBuilt } from '../installation/index.js';
import type { Job, ProcedureStep } from '../job/index.js';
import { ranked, weighedBy, type Cause } from './causes.js';
import { stepContext } from './context.js';
import { DeadPanel, loopsOf } from './dead/loops.js';
import { DeadReads } from './panel/dead-readings.js';
import type { Read } from './panel/judged.js';

/** A dead check that was read: a value a place, `Infinity` where the meter showed overload. */
export interface DeadTold {
  readonly step: ProcedureStep;
  readonly values: readonly Value[];
}

/** Two readings of the same way agree within this, Ω, or as a share. */
const AGREE = { ohm: 0.5, share: 0.3 } as const;

/** Whether a place reads as it was told: both no way, or ohms of the same size. */
function agrees(read: Read, told: Value): boolean {
  if (typeof told !== 'number') return read !== 'over' && read.value === told;
  const ohm = read === 'over' ? Infinity : read.value;
  if (typeof ohm !== 'number') return false;
  if (!Number.isFinite(told) || !Number.isFinite(ohm))
    return Number.isFinite(told) === Number.isFinite(ohm);
  return Math.abs(ohm - told) <= Math.max(AGREE.ohm, AGREE.share * ohm);
}

/**
 * The likeliest single causes of a dead check that is not as expected: each wire, contact, link and part is supposed wrong
 * and the same readings are taken on the circuit so; what would have given this answer is weighed by every other one.
 *
 * @param others dead checks that stand beside it
 * @returns the likeliest first; empty where nothing single explains it, or the check looks at nothing of the circuit
 * @example deadCauses(job, profile, { step, values: [Infinity, Infinity] }, [])[0].faults[0] // { kind: 'open', wire: 'w9' }
 */
export function deadCauses(
  job: Job,
  profile: Profile,
  failed: DeadTold,
  others: readonly DeadTold[],
  most = 3,
): Cause[] {
  const planned = stepContext({ ...job, deviations: {} }, profile);
  const panel = asBuilt(job, profile);
  const loops = loopsOf(planned, new DeadPanel(planned));
  const gives = (reads: DeadReads, { step, values }: DeadTold): boolean | undefined => {
    const read = reads.at(step);
    return read && values.every((told, place) => agrees(read[place] ?? read[0], told));
  };
  const weighed = candidateFaults(job, profile, panel).flatMap((candidate) => {
    // A setting changes nothing while everything is off.
    if (candidate.group === 'setting') return [];
    const reads = new DeadReads(planned, applyFault(panel, candidate.fault), loops);
    if (gives(reads, failed) !== true) return [];
    return [
      weighedBy(
        candidate,
        others.map((told) => gives(reads, told)),
      ),
    ];
  });
  return ranked(weighed, panel, most);
}
