export { deadOf, type Dead } from './dead/index.js';
export { liveOf, liveOfSection, liveSteps, shownTrial, type Live } from './live/index.js';
export { simulatedOf } from './live/simulated.js';
export { simulatedRun, type SimulatedPoint } from './simulated-run.js';
export { likelyCauses, type Cause, type Told } from './causes.js';
export { deadCauses, type DeadTold } from './dead-causes.js';
export { seenAt } from './panel/runs.js';
export { readingsOf } from './panel/readings.js';
export { deadReadings } from './panel/dead-readings.js';
export type { PanelReading } from './panel/judged.js';
export { isolationSources, type IsolationSource } from './dead/sources.js';
export {
  LOOP_PCT,
  loopHz,
  loopPlan,
  loopResult,
  loopSignal,
  type LoopPlan,
  type LoopPoint,
  type LoopRemedy,
  type LoopResult,
} from './loop-sheet.js';
export {
  contactSort,
  dialLeads,
  motorCores,
  type CoreReads,
  type FindOutDoubt,
  type FoundOut,
  type PairRead,
} from './find-out.js';
