export { assignInputs, taskCode, type AssignmentCost } from './assign.js';
export { colourOf } from './conductors.js';
export {
  keyingFaults,
  keyingOrder,
  keyingParts,
  partOf,
  type KeyingPart,
  type KeyLine,
} from './keying.js';
export { countPresses, keyPresses, type KeyPress } from './keystrokes.js';
export {
  adoption,
  arrangeFor,
  planJob,
  type NoPlan,
  type PlanCost,
  type PlanResult,
} from './plan.js';
export { factorySettings, settingsInForce, type PlannedSettings } from './settings.js';
export { firstOfKind, inputLogics, presentTerminals } from './terminals.js';
export { partsList, toolsList, type Part, type Tool } from './parts.js';
