export { scaleAnalogue, type AnalogueScale } from './analogue.js';
export { commandPlace, isPulse, terminalDemand, type Block } from './command.js';
export { runDriveCase, type DriveSample } from './case.js';
export { outputHz, outputStretch, shaftStretch } from './motion.js';
export { rideThroughUs, type Link } from './power.js';
export {
  longestTravelMs,
  nextCrossing,
  planRamp,
  valueAt,
  type Ramp,
  type Stretch,
} from './ramp.js';
export { type Direction, type DriveState, type Fault } from './state.js';
export { initialDrive, stepDrive, wakeDrive, type DriveInputs } from './step.js';
export { viewDrive, type DriveView, type StateName } from './view.js';
export {
  controlSchema,
  driveCaseSchema,
  inputNames,
  notYetInControl,
  restingLevels,
  type Control,
  type DriveCase,
  type InputName,
  type Levels,
} from './vocabulary.js';
