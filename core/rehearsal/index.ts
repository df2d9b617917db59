export { DESTROYED } from './device-model.js';
export { type DeviceState, type KeyName } from './device-model.js';
export { Engine } from './engine.js';
export {
  type EngineOptions,
  type EngineState,
  type KeptBoard,
  type SolvedMoment,
  type TimedAct,
} from './engine-state.js';
export { rehearse, timedActs } from './script.js';
export { linkLane } from './link-lane.js';
export { ohmsBetween, type OhmReading } from './ohms.js';
export { Session } from './session.js';
export { whyNotRunning, type Condition, type Why } from './why.js';
export { type OpenPlace } from './ways.js';
