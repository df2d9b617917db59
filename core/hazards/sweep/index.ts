export {
  faultClasses,
  moments,
  sweepFaults,
  type FaultClass,
  type FaultKind,
  type Moment,
  type SweepFault,
  type SweepRow,
} from './faults.js';
export { Sweep } from './sweep.js';
