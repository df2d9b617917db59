export { assignInputs, type AssignmentCost } from './assign.js';
export { colourOf } from './conductors.js';
export { keyingParts, type KeyingPart, type KeyLine } from './key-sheet.js';
export { keyingFaults } from './keying-faults.js';
export { keyingLines, keyingOrder, keyingWays, partOf, type KeyingWay } from './keying.js';
export { countPresses, keyPresses, type KeyPress } from './keystrokes.js';
export {
  adoption,
  arrangeFor,
  deviceIdOf,
  planJob,
  type NoPlan,
  type PlanCost,
  type PlanResult,
} from './plan.js';
export { type PlannedSettings } from './settings.js';
export { linkLines, type LinkLine } from './links.js';
export { partsList, toolsList, type Part, type Tool } from './parts.js';
export {
  adoptsByItself,
  differs,
  movedEnd,
  wiringDifference,
  type MovedEnd,
  type WiringChange,
} from './adoption.js';
export { machineFor, recommendedStart } from './start-values.js';
export { testValuesFor, withTestValues, type TestValue } from './test-values.js';
export { familyFits, verdictOfFit, type FamilyFit, type ModelFit } from './fits.js';
export { offersFor, type Offer } from './offers.js';
