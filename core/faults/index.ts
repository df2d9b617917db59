export {
  candidateFaults,
  partFaults,
  priors,
  type Candidate,
  type FaultGroup,
} from './candidates.js';
export {
  insideFaults,
  looseJoints,
  potentialsOf,
  singleFaults,
  wireNets,
  type InsidePart,
  type LooseJoint,
  type Potentials,
  type SweptFault,
} from './single.js';
export { switchFault, type Switchable, type SwitchedFault } from './switches.js';
