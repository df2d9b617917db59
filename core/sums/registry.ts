import type { Calculation } from '../calculation/index.js';
import { motorCurrent, plateSpeed, shaftSpeed } from '../motor/index.js';
import { dcLinkVoltage, discharge, inertiaAtMotor, unbalance, voltageDrop } from '../power/index.js';
import { rampTime, reversalTime, sCurveTime } from './ramps.js';
import { analogScale, analogScaleInverse, dialLoading } from './signals.js';

const all: readonly Calculation[] = [
  analogScale,
  analogScaleInverse,
  dialLoading,
  shaftSpeed,
  rampTime,
  sCurveTime,
  reversalTime,
  inertiaAtMotor,
  dcLinkVoltage,
  motorCurrent,
  plateSpeed,
  voltageDrop,
  unbalance,
  discharge,
];

/** Every calculation by its name. */
export const calculations: Readonly<Record<string, Calculation>> = Object.fromEntries(all.map((c) => [c.name, c]));

/** Names that are documented and not built yet. */
export const plannedCalculations: readonly string[] = [
  'analogBiasGain', 'signalLoss', 'bipolarReference', 'shuntReading', 'converterResolution', 'controllerFullScale', 'dialChart', 'machineSpeed', 'calibrate',
  'shortestAcceleration', 'braking', 'overhaulingBraking', 'dcLinkRise', 'longestCable', 'earthLeakage', 'filterLeakage', 'cableCharging', 'reflectedWave',
  'unbalanceDerating', 'singlePhaseFeed', 'singlePhaseInputCurrent', 'derating', 'controlTransformer', 'supplyBudget', 'startDip', 'minimumInsulation',
  'insulationAt40', 'polarizationIndex', 'protectiveConductor', 'motorPoint', 'motorBreakdown', 'motorLoadPoint', 'fitMotor', 'runUp', 'minimumStartVoltage',
  'startTorqueAtLimit', 'tripTime', 'startAgainstClass',
]; // prettier-ignore
