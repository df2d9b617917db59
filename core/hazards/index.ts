export {
  acceptanceOf,
  acceptanceSubject,
  checkJob,
  isAcceptable,
  requirementsHeld,
  schemeFindings,
  unmetRequirements,
  type Unmet,
  type Held,
} from './check.js';
export { hazardContext, type HazardContext, type HazardRule } from './rule.js';
export { hazardRules } from './rules/index.js';
export { mayBeStated, statedOtherwise } from './rules/required-functions.js';
export {
  faultClasses,
  moments,
  Sweep,
  type FaultClass,
  type Moment,
  type SweepRow,
} from './sweep/index.js';
export { nightCard, type NightFault } from './night-card.js';
