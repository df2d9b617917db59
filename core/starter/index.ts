export { runStarterCase, starterCaseSchema, type StarterCase, type StarterSample } from './case.js';
export { starterLogic, type StarterSpec } from './logic.js';
export { starterSpecOf } from './spec.js';
export { planStart, type FedMachine } from './plan-run.js';
export type { PlannedRun } from './state.js';
export {
  starterControlSchema,
  starterFaults,
  starterInputs,
  starterStates,
  type StarterControl,
} from './vocabulary.js';
