export { candidateFaults, priors, type Candidate, type FaultGroup } from './candidates.js';
export {
  potentialsOf,
  singleFaults,
  wireNets,
  type Potentials,
  type SweptFault,
} from './single.js';
export { switchFault, type Switchable, type SwitchedFault } from './switches.js';
