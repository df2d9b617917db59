import type { HazardRule } from '../rule.js';
import { brakingUnitPoles } from './braking-unit.js';
import { bothDirections } from './both-directions.js';
import { channelsOpen } from './channels-open.js';
import { circuitSettles } from './circuit-settles.js';
import { conditionReturn } from './condition-return.js';
import { contactorAsStart } from './contactor-as-start.js';
import { contactorLatch } from './contactor-latch.js';
import { controllerSignals } from './controller-signals.js';
import { contactsBear } from './contacts-bear.js';
import { contactsOnZeroSide } from './contacts-on-zero-side.js';
import { damage } from './damage.js';
import { directionNotLocked } from './direction-not-locked.js';
import { emergencyStop } from './emergency-stop.js';
import { faultReset } from './fault-reset.js';
import { insideDelta } from './inside-delta.js';
import { handshakeDeadlock } from './handshake-deadlock.js';
import { inputsSwitch } from './inputs-switch.js';
import { guardNotLocked } from './guard-not-locked.js';
import { linkTrips } from './link-trips.js';
import { loadsFitSupply } from './loads-fit-supply.js';
import { coilsSuppressed } from './coils-suppressed.js';
import { coloursUsed } from './colours-used.js';
import { lampSaysLess } from './lamp-says-less.js';
import { latchOutlivesPower } from './latch-outlives-power.js';
import { loadsOnTheirSide } from './loads-on-their-side.js';
import { leadsOfTheMotor } from './motor-leads.js';
import { outputContactorDip } from './output-contactor.js';
import { placeChange } from './place-change.js';
import { plugsAlike } from './plugs-alike.js';
import { powerReturn } from './power-return.js';
import { protectiveConductor } from './protective-conductor.js';
import { requiredFunctions } from './required-functions.js';
import { resistorStaysFed } from './resistor-stays-fed.js';
import { settingsFit } from './settings-fit.js';
import { signalsFit } from './signal-mismatch.js';
import { sourcesApart } from './sources-apart.js';
import { startVoltage } from './start-voltage.js';
import { startWhileCoasting } from './start-while-coasting.js';
import { staysLive } from './stays-live.js';
import { stopRelease } from './stop-release.js';
import { suppliesBear } from './supplies-bear.js';
import { wishOverridden } from './wish-overridden.js';
import { unknownPolicy } from './unknown-policy.js';

/** Every hazard rule; each finds nothing where it does not apply. */
export const hazardRules: readonly HazardRule[] = [
  damage,
  settingsFit,
  protectiveConductor,
  leadsOfTheMotor,
  sourcesApart,
  signalsFit,
  controllerSignals,
  channelsOpen,
  inputsSwitch,
  circuitSettles,
  suppliesBear,
  staysLive,
  powerReturn,
  latchOutlivesPower,
  stopRelease,
  conditionReturn,
  resistorStaysFed,
  brakingUnitPoles,
  linkTrips,
  outputContactorDip,
  handshakeDeadlock,
  placeChange,
  emergencyStop,
  faultReset,
  startVoltage,
  insideDelta,
  startWhileCoasting,
  contactsBear,
  contactsOnZeroSide,
  bothDirections,
  directionNotLocked,
  contactorAsStart,
  contactorLatch,
  loadsOnTheirSide,
  lampSaysLess,
  loadsFitSupply,
  plugsAlike,
  guardNotLocked,
  coilsSuppressed,
  coloursUsed,
  wishOverridden,
  unknownPolicy,
  requiredFunctions,
];
