import { expose } from 'comlink';
import type { Profile, Value } from '@tactron/core/catalogue';
import type { Fault, Job } from '@tactron/core/job';
import {
  deadCauses,
  likelyCauses,
  type Cause,
  type DeadTold,
  type Told,
} from '@tactron/core/procedure';
import { sayFaults } from '@tactron/core/words';

/** A likely cause of a failed reading in words. */
export interface SaidCause {
  readonly what: string;
  readonly act: string;
  /** How likely it is among what would explain the reading, %. */
  readonly pct: number;
  readonly explains: number;
  readonly of: number;
  /** What to book where the panel is really built so; null where several faults remain, or it is no way to build. */
  readonly builtSo: Fault | null;
}

/** Ways in which a panel may be built otherwise and stay so; anything else is mended. */
const mayStay: readonly Fault['kind'][] = ['landed', 'swapped', 'wrongContact'];

const said = (causes: readonly Cause[], job: Job): SaidCause[] =>
  causes.map(({ faults, share, explains, of }) => ({
    ...sayFaults(faults, job),
    pct: Math.round(share * 100),
    explains,
    of,
    builtSo: faults.length === 1 && mayStay.includes(faults[0].kind) ? faults[0] : null,
  }));

const worker = {
  /**
   * The likeliest causes of a failed answer, beside the other answers that stand.
   *
   * @returns none where nothing single explains it
   */
  causes(job: Job, profile: Profile, failed: Told, others: readonly Told[]): SaidCause[] {
    return said(likelyCauses(job, profile, failed, others), job);
  },

  /** As `causes`, of a dead check. */
  deadCauses(
    job: Job,
    profile: Profile,
    failed: DeadTold,
    others: readonly DeadTold[],
  ): SaidCause[] {
    return said(deadCauses(job, profile, failed, others), job);
  },
};

export type CausesWorker = typeof worker;
export type { DeadTold, Told, Value };
expose(worker);
