import { expose } from 'comlink';
import {
  changesSpeed,
  shippedProfile,
  shippedProfiles,
  type Profile,
} from '@tactron/core/catalogue';
import type { Adopted, Evidence, Job } from '@tactron/core/job';
import {
  adoption,
  adoptsByItself,
  differs,
  movedEnd,
  planJob,
  type MovedEnd,
} from '@tactron/core/plan';
import { plateMissing } from '@tactron/core/line';
import { foundValues } from '@tactron/core/records';
import { schemeMissing } from '@tactron/core/scheme';
import { say } from '@tactron/core/words';

/** A move that can be made, or why it cannot, in words. */
export type SaidMove =
  Extract<MovedEnd, { ok: true }> | { readonly ok: false; readonly text: string };

/** How much of plates and wishes is needed before anything can be planned, and how much of it is open. */
export interface Missing {
  readonly plate: { readonly needed: number; readonly missing: number };
  readonly scheme: { readonly needed: number; readonly missing: number };
}

const worker = {
  /** What is open in each of some jobs. */
  missing(jobs: readonly Pick<Job, 'plate' | 'scheme' | 'profile'>[]): Missing[] {
    const count = ({ needed, missing }: { needed: number; missing: readonly string[] }) => ({
      needed,
      missing: missing.length,
    });
    // A family of the person's own library is taken for one that changes the speed until the job is opened.
    const speeds = (family: string): boolean => {
      const known = Object.hasOwn(shippedProfiles, family);
      return !known || changesSpeed(shippedProfile(family));
    };
    return jobs.map(({ plate, scheme, profile }) => ({
      plate: count(plateMissing(plate)),
      scheme: count(schemeMissing(scheme, speeds(profile.family))),
    }));
  },

  /**
   * The plan that a change makes, where it is adopted with the change; null where nothing is built otherwise, there is no
   * plan, or evidence lets it wait for a person.
   */
  follows(job: Job, profile: Profile, evidence: readonly Evidence[]): Adopted | null {
    if (!adoptsByItself(evidence)) return null;
    const plan = planJob(job, profile, foundValues(job, profile, evidence));
    return plan.ok && differs(job.adopted, plan.wiring) ? adoption(plan) : null;
  },

  /** The decision that putting one end of a wire elsewhere makes. */
  moved(job: Job, profile: Profile, wire: string, end: 'from' | 'to', landing: string): SaidMove {
    const move = movedEnd(job, profile, wire, end, landing);
    return move.ok ? move : { ok: false, text: say(move.said) };
  },
};

export type PlanWorker = typeof worker;

expose(worker);
