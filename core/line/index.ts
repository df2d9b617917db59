export { dcLinkVoltage } from './dc-link-voltage.js';
export { discharge } from './discharge.js';
export { coastTime, runDownOf } from './run-down.js';
export { inertiaAtMotor } from './inertia.js';
export { likelyTyping } from './plate/likely-typing.js';
export { brakingFacts } from './plate/stop-side.js';
export {
  plateBlocks,
  plateContext,
  baseOf,
  plateNumbers,
  type PlateBlock,
  type PlateContext,
  type PlateFact,
  type PlateNumbers,
} from './plate/context.js';
export { plateFacts } from './plate/facts.js';
export { threePhaseInputCurrent } from './plate/input-current.js';
export { leakageOf, REINFORCED_ABOVE_MA } from './plate/block-findings.js';
export { inputCurrentOf } from './plate/supply-side.js';
export { plateFindings, plateMissing } from './plate/plate-findings.js';
export { expectedPhaseOhm, expectedWindings, WINDING_SHARE, windingOhm } from './winding.js';
export { unbalance } from './unbalance.js';
export { copperOhm, voltageDrop } from './voltage-drop.js';
export { shortestAcceleration } from './acceleration.js';
export { braking, dcLinkRise, LOSS_TORQUE_SHARE, overhaulingBraking } from './braking.js';
export {
  ampacity,
  ampacityOf,
  ampacityTables,
  areaOf,
  awgAreaMm2,
  groundingSize,
  peSize,
  sizeKey,
  type AmpacityTable,
} from './conductors.js';
export { feedCurrent, feedSize, panelAmpacity, type FeedAsked } from './panel-conductors.js';
export { controlTransformer, supplyBudget } from './control-supply.js';
export { fedMachine } from './fed-machine.js';
export { derating } from './derating.js';
export { singlePhaseFeed, singlePhaseInputCurrent, startDip, unbalanceDerating } from './feed.js';
export { insulationAt40, minimumInsulation, polarizationIndex } from './insulation.js';
export { cableCharging, earthLeakage, filterLeakage } from './leakage.js';
export { longestCable, protectiveConductor } from './longest-cable.js';
export { currentDistortion, enclosureHeat, lowSpeedTorque, prospectiveCurrent } from './place.js';
export { reflectedWave } from './reflected-wave.js';
export { motorCurves, type CurvePoint, type MotorCurves } from './plate/motor-curves.js';
