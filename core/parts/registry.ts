import { actuator } from './kinds/actuator.js';
import { brake } from './kinds/brake.js';
import { brakingResistor } from './kinds/braking-resistor.js';
import { brakingUnit } from './kinds/braking-unit.js';
import { breakerThreePole } from './kinds/breaker-three-pole.js';
import { breakerTwoPole } from './kinds/breaker-two-pole.js';
import { contactor } from './kinds/contactor.js';
import { contactorRelay } from './kinds/contactor-relay.js';
import { controlTransformer } from './kinds/control-transformer.js';
import { controllerContact } from './kinds/controller-contact.js';
import { controllerInput } from './kinds/controller-input.js';
import { currentSource } from './kinds/current-source.js';
import { emergencyStop } from './kinds/emergency-stop.js';
import { footBrake } from './kinds/foot-brake.js';
import { footSwitch } from './kinds/foot-switch.js';
import { fuse } from './kinds/fuse.js';
import { endLimit } from './kinds/end-limit.js';
import { guardLock } from './kinds/guard-lock.js';
import { windingSensor } from './kinds/winding-sensor.js';
import { guardContact } from './kinds/guard-contact.js';
import { horn } from './kinds/horn.js';
import { inputFilter } from './kinds/input-filter.js';
import { inputReactor } from './kinds/input-reactor.js';
import { isolator } from './kinds/isolator.js';
import { keySwitch } from './kinds/key-switch.js';
import { lamp } from './kinds/lamp.js';
import { levelContact } from './kinds/level-contact.js';
import { levelInterlock } from './kinds/level-interlock.js';
import { loopSupply } from './kinds/loop-supply.js';
import { maintainedButton } from './kinds/maintained-button.js';
import { meter } from './kinds/meter.js';
import { motor } from './kinds/motor.js';
import { motorIsolator } from './kinds/motor-isolator.js';
import { outputFilter } from './kinds/output-filter.js';
import { panelFan } from './kinds/panel-fan.js';
import { plugConnector } from './kinds/plug-connector.js';
import { potentiometer } from './kinds/potentiometer.js';
import { presetSelector } from './kinds/preset-selector.js';
import { pressureContact } from './kinds/pressure-contact.js';
import { pressureInterlock } from './kinds/pressure-interlock.js';
import { relay, relayPlug11, relayPlug8 } from './kinds/relay.js';
import { selectorForwardReverse } from './kinds/selector-forward-reverse.js';
import { selectorOffOn } from './kinds/selector-off-on.js';
import { selectorOnOff } from './kinds/selector-on-off.js';
import { selectorRemoteLocal } from './kinds/selector-remote-local.js';
import { selectorReverseOffForward } from './kinds/selector-reverse-off-forward.js';
import { startButton } from './kinds/start-button.js';
import { stopButton } from './kinds/stop-button.js';
import { supply24 } from './kinds/supply-24.js';
import { supplyPlug } from './kinds/supply-plug.js';
import { supplySinglePhase } from './kinds/supply-single-phase.js';
import { supplyThreePhase } from './kinds/supply-three-phase.js';
import { terminalStrip } from './kinds/terminal-strip.js';
import { thermostat } from './kinds/thermostat.js';
import { timerRelay } from './kinds/timer-relay.js';
import { transistorOutput } from './kinds/transistor-output.js';
import { voltageSource } from './kinds/voltage-source.js';
import { workLight } from './kinds/work-light.js';
import type { Part, PartOf } from './part.js';

/** Every kind of part there is. A new kind is a file in `kinds/` and a line here. */
export const parts: Readonly<Record<string, Part>> = Object.fromEntries(
  [
    actuator,
    brake,
    brakingResistor,
    brakingUnit,
    breakerThreePole,
    breakerTwoPole,
    contactor,
    contactorRelay,
    controlTransformer,
    controllerContact,
    controllerInput,
    currentSource,
    emergencyStop,
    footBrake,
    footSwitch,
    fuse,
    endLimit,
    guardContact,
    guardLock,
    windingSensor,
    horn,
    inputFilter,
    inputReactor,
    isolator,
    keySwitch,
    lamp,
    levelContact,
    levelInterlock,
    loopSupply,
    maintainedButton,
    meter,
    motor,
    motorIsolator,
    outputFilter,
    panelFan,
    plugConnector,
    potentiometer,
    presetSelector,
    pressureContact,
    pressureInterlock,
    relay,
    relayPlug8,
    relayPlug11,
    selectorForwardReverse,
    selectorOffOn,
    selectorOnOff,
    selectorRemoteLocal,
    selectorReverseOffForward,
    startButton,
    stopButton,
    supply24,
    supplyPlug,
    supplySinglePhase,
    supplyThreePhase,
    terminalStrip,
    thermostat,
    timerRelay,
    transistorOutput,
    voltageSource,
    workLight,
  ].map((part) => [part.kind, part]),
);

/** Terminals of a part in the order in which they are drawn; none for an unknown kind. */
export const terminalsOf = (part: PartOf): readonly string[] => {
  const own = parts[part.kind]?.terminals(part) ?? [];
  return isExposed(part) ? [...own, PROTECTIVE] : own;
};

/** Terminal of the protective conductor at a part. */
export const PROTECTIVE = 'PE';

/** Whether a part takes a protective conductor of its own: transformer, 24 V supply, fan, light, brake, lamps on mains. */
export const isExposed = (part: PartOf): boolean => parts[part.kind]?.exposed?.(part) === true;

/**
 * Contacts of a part's own hand.
 *
 * @returns undefined for a part without them
 * @example contactsOf({ kind: 'stopButton', params: {} })?.contacts[0].a // '11'
 */
export const contactsOf = (part: PartOf) => parts[part.kind]?.contacts?.(part);

/** A button that springs back. */
export const isMomentary = (kind: string): boolean =>
  parts[kind]?.contacts?.({ kind, params: {} }).momentary === true;

/** It only shows or sounds something: no motor moves by it. */
export const onlyShows = (kind: string): boolean => parts[kind]?.shows === true;
