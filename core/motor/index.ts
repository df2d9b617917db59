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
export { plateSpeed, polePairsOf } from './plate-speed.js';
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
export type {
  CircuitQuestion,
  Demand,
  DeviceFacts,
  DeviceLogic,
  DeviceView,
  InstallFacts,
  LogicCondition,
  OutputDemand,
  Reading,
} from './logic.js';
export { runDownPath, runDownTable, type RunDown } from './run-down.js';
export {
  shaftBehaviour,
  shaftHz,
  shaftRpm,
  shaftStates,
  shaftStretch,
  turnsFreely,
  type InstalledShaft,
  type ShaftSources,
  type ShaftState,
  type ShaftStateName,
} from './shaft.js';
