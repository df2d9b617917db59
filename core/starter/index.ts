export type { Broken } from './broken.js';
export { runStarterCase, starterCaseSchema, type StarterCase, type StarterSample } from './case.js';
export { starterLogic, type StarterSpec } from './logic.js';
export { startCurves, startFacts, type StartCurve, type StartFacts } from './start-facts.js';
export { leastLimits, startBand, type StartBand } from './start-band.js';
export { startsAllowed, type StartsAllowed } from './starts-allowed.js';
export { starterSpecOf } from './spec.js';
export { planStart, type FedMachine } from './plan-run.js';
export { recommendStart, smallestLimit, type Recommended, type StartMeans } from './recommend.js';
export type { PlannedRun } from './state.js';
export {
  starterControlSchema,
  starterFaults,
  starterInputs,
  starterStates,
  type StarterControl,
} from './vocabulary.js';
