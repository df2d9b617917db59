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
export {
  inert,
  type Board,
  type Deed,
  type Device,
  type Peers,
  type Probe,
  type SignalSpec,
  type SwitchAct,
  type Threshold,
} from './device.js';
export { Layout, type Across, type Edge, type EdgeRole } from './layout.js';
