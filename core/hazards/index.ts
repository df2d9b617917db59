export {
  acceptanceOf,
  acceptanceSubject,
  checkJob,
  hazardRules,
  isSchemeRule,
  schemeFindings,
} from './check.js';
export { hazardContext, type HazardContext, type Rule } from './rules/context.js';
export {
  faultClasses,
  moments,
  Sweep,
  sweepFaults,
  type FaultClass,
  type FaultKind,
  type Moment,
  type SweepFault,
  type SweepRow,
} from './sweep/index.js';
