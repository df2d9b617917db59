export {
  breakdownSlip,
  circuitArgument,
  loadSlip,
  motorAt,
  synchronousRad,
  type MotorCircuit,
  type MotorPoint,
} from './circuit.js';
export { fitCircuit, fitErrors, fitMotor, usualRatios, type FitPlate } from './fit.js';
export { motorCurrent } from './motor-current.js';
export {
  minimumStartVoltage,
  motorBreakdown,
  motorLoadPoint,
  motorPoint,
  startTorqueAtLimit,
} from './motor-point.js';
export { plateSpeed } from './plate-speed.js';
export {
  linkFor,
  linksOf,
  ratedPointInUse,
  ratedPoints,
  voltageSuits,
  type MotorLink,
  type RatedPoint,
} from './rated.js';
export {
  loadTorque,
  runUp,
  runUpOf,
  type LoadCurve,
  type RunUpPoint,
  type RunUpResult,
  type StartWay,
} from './run-up.js';
export { machineSpeed, shaftSpeed } from './shaft-speed.js';
export {
  imageTripTime,
  startAgainstClass,
  tripClasses,
  tripTime,
  type TripClass,
} from './thermal.js';
