import { modelOf, planningGaps, type Profile } from '../../catalogue/index.js';
import type { Job, ProcedureStep } from '../../job/index.js';
import { stepContext } from '../context.js';
import { bothTogether, directionSteps, jogSteps } from './directions.js';
import { inputSteps } from './inputs.js';
import { dialSteps, presetSteps, speedStep } from './speed.js';
import { conditionSteps, estopSteps, stationSteps, stopSteps } from './stops.js';
import { supplySteps } from './supply.js';
import { powerReturnSteps, rampSteps, warningStep } from './times.js';

/** Parts of the live tests, in the order in which they are done. */
const sections = [
  supplySteps,
  inputSteps,
  dialSteps,
  directionSteps,
  speedStep,
  bothTogether,
  warningStep,
  stopSteps,
  stationSteps,
  conditionSteps,
  estopSteps,
  jogSteps,
  presetSteps,
  rampSteps,
  powerReturnSteps,
] as const;

/**
 * Live tests of this very job, every expected value taken from simulating its own wires and settings.
 *
 * @returns steps in the order in which they are done; empty until a plan is adopted
 */
export function liveSteps(job: Job, profile: Profile): ProcedureStep[] {
  if (!job.adopted || !modelOf(profile, job.profile.model)) return [];
  // A device whose behaviour is not simulated yet has no expected values.
  if (planningGaps(profile).length > 0) return [];
  const c = stepContext(job, profile);
  return sections.flatMap((section) => section(c));
}
