import { changesSpeed, roleValue, type Profile } from '../catalogue/index.js';
import { leastLimitsOf, startBandOf, startCurvesOf, startOf } from '../installation/index.js';
import type { Job } from '../job/index.js';
import { adoption, planJob, recommendedStart } from '../plan/index.js';
import {
  startsAllowed,
  type Recommended,
  type StartBand,
  type StartCurve,
  type StartFacts,
  type StartsAllowed,
} from '../starter/index.js';
import { trialsOf } from '../trials/index.js';

/** The start of a job as it is planned: what is set, what is recommended, and what comes of it beside a direct start. */
export interface StartView {
  readonly facts: StartFacts;
  readonly set: StartCurve;
  readonly direct: StartCurve;
  readonly recommended: Recommended;
  /** Times between which the start ends with the loads and motors that this plate may stand for. */
  readonly band: StartBand;
  /** Starts an hour that motor and device bear; absent where the start is never over. */
  readonly starts?: StartsAllowed;
  /** Smallest limits that start it, with the strongest and the weakest torque of this plate, %. */
  readonly leastPct?: readonly [number, number];
  /** What is planned, by role; absent where the device has no such setting. */
  readonly planned: Readonly<
    Partial<Record<'beginPct' | 'limitPct' | 'rampS' | 'tripClass' | 'rampKind', number | string>>
  >;
}

const roles = ['beginPct', 'limitPct', 'rampS', 'tripClass', 'rampKind'] as const;

/**
 * The start that the wishes and plates of a job come to.
 *
 * @returns undefined for a device that changes the speed, and where there is no plan
 * @example startView(job, profile)?.set.startS // 11.5
 */
export function startView(job: Job, profile: Profile): StartView | undefined {
  if (changesSpeed(profile)) return undefined;
  const plan = planJob(job, profile);
  const recommended = recommendedStart(job, profile);
  if (!plan.ok || !recommended) return undefined;
  const { installation, panel } = trialsOf({ ...job, adopted: adoption(plan) }, profile);
  const facts = startOf(installation.device);
  const curves = startCurvesOf(installation.device);
  const band = startBandOf(installation.device);
  if (!facts || !curves || !band) return undefined;
  const leastPct = leastLimitsOf(installation.device);
  const starts = startsAllowed(facts, profile.duty);
  const planned = Object.fromEntries(
    roles.flatMap((role) => {
      const value = roleValue(profile, panel.settings, role);
      return typeof value === 'number' || typeof value === 'string' ? [[role, value]] : [];
    }),
  );
  return {
    facts,
    ...curves,
    recommended,
    band,
    ...(leastPct ? { leastPct } : {}),
    ...(starts ? { starts } : {}),
    planned,
  };
}
