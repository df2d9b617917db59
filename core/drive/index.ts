export { scaleAnalogue, type AnalogueScale } from './analogue.js';
export { runDriveCase, type DriveSample } from './case.js';
export { driveLogic, type DriveSpec } from './logic.js';
export { brakingMatters, linkRise, linkVolts, linkWatts, type LinkBraking } from './link-rise.js';
export { rideThroughUs, type DcLink } from './power.js';
export { planRamp } from './ramp.js';
export { type DriveState, type Fault } from './state.js';
export { stateNames, type DriveView, type StateName } from './view.js';
export {
  controlSchema,
  driveCaseSchema,
  inputNames,
  notYetInControl,
  type Control,
  type DriveCase,
  type InputName,
} from './vocabulary.js';
export { analogueScaleOf, controlOf, driveSpecOf } from './spec.js';
