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
  familyFits,
  movedEnd,
  planJob,
  verdictOfFit,
  type FamilyFit,
  type MovedEnd,
} from '@tactron/core/plan';
import { plateMissing } from '@tactron/core/line';
import { foundValues } from '@tactron/core/records';
import { schemeMissing } from '@tactron/core/scheme';
import { formatNumber } from '@tactron/core/units';
import {
  policyNames,
  say,
  sayNoPlan,
  sayPolicy,
  terminalKindNames,
  wishNames,
} from '@tactron/core/words';

/** A move that can be made, or why it cannot, in words. */
export type SaidMove =
  Extract<MovedEnd, { ok: true }> | { readonly ok: false; readonly text: string };

/** A family and its models against a job, in words. */
export interface SaidFit {
  readonly family: string;
  readonly title: string;
  readonly kind: string;
  readonly supply: string;
  /** One of its models can be taken. */
  readonly can: boolean;
  readonly verdict: FamilyFit['wishes'];
  readonly says: string;
  readonly because: string;
  readonly smallest: string | undefined;
  readonly models: readonly {
    readonly model: string;
    readonly ratedA: number;
    readonly carries: boolean;
    readonly says: string;
  }[];
}

const verdicts = {
  fits: 'fits',
  without: 'fits without',
  cannot: 'cannot, because',
  supply: 'cannot, because',
  current: 'cannot, because',
  unknown: 'nothing wished yet',
} as const;

/** Why a family does not do it, or what it leaves out. */
function becauseOf(fit: FamilyFit): string {
  const { phases, volts } = fit.madeFor;
  switch (verdictOfFit(fit)) {
    case 'supply':
      return `It is made for ${volts[0]}–${volts[1]} V, ${phases}-phase.`;
    case 'current':
      return `No model carries the ${formatNumber(fit.amps ?? 0, 1)} A of the motor.`;
    default:
      return fit.why ? sayNoPlan(fit.why) : fit.without.map((w) => wishNames[w] ?? w).join(', ');
  }
}

function saidFit(fit: FamilyFit): SaidFit {
  const { supply, smallest, amps } = fit;
  const verdict = verdictOfFit(fit);
  const can = verdict === 'fits' || verdict === 'without' || verdict === 'unknown';
  return {
    family: fit.family,
    title: fit.title,
    kind: fit.kind === 'starter' ? 'soft starter' : 'drive',
    supply:
      supply === undefined
        ? 'supply not entered'
        : supply
          ? 'its own supply'
          : 'not its own supply',
    can,
    verdict: can ? verdict : 'cannot',
    says: verdicts[verdict],
    because: becauseOf(fit),
    smallest,
    models: fit.models.map((m) => ({
      ...m,
      says:
        amps === undefined
          ? ''
          : !m.carries
            ? 'too small'
            : can && m.model === smallest
              ? 'fits'
              : '',
    })),
  };
}

/** What a profile tells, in words. */
export interface SaidProfile {
  readonly terminals: readonly {
    readonly id: string;
    readonly row: string;
    readonly kind: string;
    readonly conductors: number;
    readonly torqueNm: number | undefined;
  }[];
  readonly policies: readonly {
    readonly id: string;
    readonly name: string;
    readonly text: string;
  }[];
}

/** Behaviour that a profile tells and nothing simulated depends on: the phases are alike, dials are set before power comes. */
const toldOnly: readonly string[] = ['limitOf', 'dialsRead', 'dialSwitchWins'];

function saidProfile(profile: Profile): SaidProfile {
  return {
    terminals: profile.rows.flatMap((row) =>
      row.terminals.map((id) => {
        const { kind, conductors, torqueNm } = profile.terminals[id];
        return { id, row: row.name, kind: terminalKindNames[kind] ?? kind, conductors, torqueNm };
      }),
    ),
    policies: Object.entries(profile.policies).map(([id, policy]) => ({
      id,
      name: policyNames[id] ?? id,
      text: `${sayPolicy(policy)}${toldOnly.includes(id) ? ' · told only: the simulation does not go by it' : ''}`,
    })),
  };
}

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

  /** Every family and model against supply, motor and wishes of a job. */
  fits: (job: Job): SaidFit[] => familyFits(job).map(saidFit),

  /** What a profile tells of terminals and behaviour. */
  profile: saidProfile,

  /** The decision that putting one end of a wire elsewhere makes. */
  moved(job: Job, profile: Profile, wire: string, end: 'from' | 'to', landing: string): SaidMove {
    const move = movedEnd(job, profile, wire, end, landing);
    return move.ok ? move : { ok: false, text: say(move.said) };
  },
};

export type PlanWorker = typeof worker;

expose(worker);
