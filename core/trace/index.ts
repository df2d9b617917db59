export {
  appendStretch,
  copyTrace,
  emptyTrace,
  pieceAt,
  signalAt,
  stateAt,
  voltsAt,
  type LandingVolts,
  type SignalTrace,
  type Trace,
  type TraceEvent,
} from './trace.js';
export { joinWindow, traceWindow, type TraceWindow } from './window.js';
export { type SignalSpec } from '../circuit/index.js';
