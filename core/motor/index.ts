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
export { breakaway, loadTorque, type LoadCurve } from './load-curve.js';
export {
  drivenBy,
  REACHED,
  runUp,
  runUpOf,
  summaryOf,
  type RunUpPoint,
  type RunUpResult,
} from './run-up.js';
export { voltageShare, type AtFull, type StartWay } from './start-way.js';
export {
  runAtVoltage,
  type Driven,
  type RunImage,
  type RunOptions,
  type RunPoint,
  type VoltageRun,
} from './voltage-run.js';
export {
  atFullVoltage,
  fullVoltageFromCurve,
  fullVoltageOf,
  NO_LOAD_RATIO,
  type CurvePoint,
  type FullVoltage,
  type FullVoltageRow,
} from './full-voltage.js';
export { smallestLimit } from './smallest-limit.js';
export { LOCKED_TORQUE, SHAPES, withTorque } from './torque-tolerance.js';
export { startsPerHour } from './starts-per-hour.js';
export { machineSpeed, shaftSpeed } from './shaft-speed.js';
export {
  classTime,
  imageTau,
  imageTripTime,
  REST_FACTOR,
  startAgainstClass,
  TRIP_HEAT,
  tripClasses,
  tripTime,
  type TripClass,
} from './thermal.js';
export type {
  BrakingFacts,
  CircuitQuestion,
  Demand,
  DeviceFacts,
  DeviceLogic,
  DeviceView,
  FedFacts,
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
