import type { Calculation } from '../calculation/index.js';
import {
  fitMotor,
  machineSpeed,
  minimumStartVoltage,
  motorBreakdown,
  motorCurrent,
  motorLoadPoint,
  motorPoint,
  plateSpeed,
  runUp,
  shaftSpeed,
  smallestLimit,
  startAgainstClass,
  startsPerHour,
  startTorqueAtLimit,
  tripTime,
} from '../motor/index.js';
import {
  ampacity,
  braking,
  cableCharging,
  controlTransformer,
  currentDistortion,
  dcLinkRise,
  dcLinkVoltage,
  derating,
  discharge,
  earthLeakage,
  enclosureHeat,
  filterLeakage,
  groundingSize,
  inertiaAtMotor,
  insulationAt40,
  longestCable,
  lowSpeedTorque,
  minimumInsulation,
  overhaulingBraking,
  peSize,
  polarizationIndex,
  prospectiveCurrent,
  protectiveConductor,
  reflectedWave,
  shortestAcceleration,
  singlePhaseFeed,
  singlePhaseInputCurrent,
  startDip,
  supplyBudget,
  threePhaseInputCurrent,
  unbalance,
  unbalanceDerating,
  voltageDrop,
} from '../line/index.js';
import { calibrate } from './calibrate.js';
import { dialChart, dialLoading } from './dial.js';
import { rampTime, reversalTime, sCurveTime } from './ramps.js';
import { analogBiasGain, bipolarReference, signalLoss } from './references.js';
import { analogScale, analogScaleInverse } from './signals.js';
import { controllerFullScale, converterResolution, shuntReading } from './sources.js';

/** Calculations by what they are about, in the order in which Sums shows them. */
export const calculationGroups: readonly {
  readonly id: string;
  readonly title: string;
  readonly calculations: readonly Calculation[];
}[] = [
  {
    id: 'signals',
    title: 'Signals and speed',
    calculations: [
      analogScale,
      analogScaleInverse,
      analogBiasGain,
      signalLoss,
      bipolarReference,
      shuntReading,
      converterResolution,
      controllerFullScale,
      dialLoading,
      dialChart,
      shaftSpeed,
      machineSpeed,
      calibrate,
    ],
  },
  {
    id: 'ramps',
    title: 'Ramps and braking',
    calculations: [
      rampTime,
      sCurveTime,
      reversalTime,
      shortestAcceleration,
      inertiaAtMotor,
      braking,
      overhaulingBraking,
      dcLinkRise,
      dcLinkVoltage,
    ],
  },
  {
    id: 'supply',
    title: 'Supply, cable, protection',
    calculations: [
      motorCurrent,
      voltageDrop,
      longestCable,
      ampacity,
      peSize,
      groundingSize,
      protectiveConductor,
      prospectiveCurrent,
      earthLeakage,
      filterLeakage,
      cableCharging,
      reflectedWave,
      unbalance,
      unbalanceDerating,
      currentDistortion,
      singlePhaseFeed,
      singlePhaseInputCurrent,
      threePhaseInputCurrent,
      derating,
      enclosureHeat,
      controlTransformer,
      supplyBudget,
      startDip,
      minimumInsulation,
      insulationAt40,
      polarizationIndex,
      discharge,
    ],
  },
  {
    id: 'motor',
    title: 'Motor and start',
    calculations: [
      plateSpeed,
      lowSpeedTorque,
      fitMotor,
      motorPoint,
      motorBreakdown,
      motorLoadPoint,
      runUp,
      smallestLimit,
      startsPerHour,
      minimumStartVoltage,
      startTorqueAtLimit,
      tripTime,
      startAgainstClass,
    ],
  },
];

/** Every calculation by its name. */
export const calculations: Readonly<Record<string, Calculation>> = Object.fromEntries(
  calculationGroups.flatMap((g) => g.calculations.map((c) => [c.name, c])),
);
