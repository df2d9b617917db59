export { Circuit, type CircuitPlan, type Solution, type Stamp } from './circuit.js';
export {
  CONTACT_OHM,
  NO_OHM,
  elementSchema,
  networkSchema,
  type CircuitElement,
  type Network,
} from './elements.js';
export { type ModalEdge, type ModalValue, type Mode } from './modes.js';
export { solveNetwork, UnsettledNetworkError, type NetworkResult } from './solve-network.js';
