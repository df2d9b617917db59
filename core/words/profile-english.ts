import type { Args } from './numbers.js';

/** What a terminal is, as a profile has it. */
export const terminalKindNames: Readonly<Record<string, string>> = {
  mains: 'supply', motor: 'motor', power: 'DC link, braking resistor', zeroVolt: '0 V', supply24: '24 V supply of the device', reference10: 'reference for a dial', inputCommon: 'common of the inputs',
  digitalInput: 'digital input', enableInput: 'enable, torque off', analogueCommon: 'common of the analogue signals', analogueInput: 'analogue input', analogueOutput: 'analogue output', relay: 'relay contact',
  acInput: 'input for alternating voltage', controlSupply: 'supply of its control', phaseSense: 'sees the phases', thermistor: 'sensors of the windings', bus: 'communication',
}; // prettier-ignore

/** Behaviour where it matters, as questions a practitioner would ask. */
export const policyNames: Readonly<Record<string, string>> = {
  startMethod: 'How its terminals start and stop it', onBothDirections: 'Both directions given together', onOppositeStart: 'The other direction given under way', onStartHeld: 'A start held through a stop', onPowerReturn: 'Power returns with the run given',
  onEnableReturn: 'The enable returns with the run given', onFaultReset: 'A fault is reset with the run given', onTakeover: 'The terminals take command with the run given', onPlaceChange: 'The place of command changes under way', startEdgeWithStopReturn: 'A start that comes with the return of the stop',
  terminalStopUnderKeypad: 'The stop of the terminals while the keypad commands', keypadStopAlways: 'The stop key works whoever commands', startWhileCoasting: 'A start while the motor still turns', belowMin: 'A speed below the lowest', onReferenceLoss: 'The speed signal is lost',
  bothDirectionsFaultSelfClears: 'The fault of both directions clears itself', jogWhileRunning: 'Jog given under way', runningAtZero: 'It tells “running” at a speed of zero', onUndervoltageWhileStopping: 'Power fails during a stop', presetCoding: 'How inputs choose a preset', noReverse: 'Reverse is locked', stopMode: 'How it stops',
  onControlReturn: 'The control supply returns with the run given', onMainsReturn: 'The mains return with the run given', autoResetAttempts: 'Faults it resets by itself', onAutoReset: 'After a reset by itself', onThermistorCooled: 'The windings have cooled', onOverloadCooled: 'The overload has cooled',
  onOppositeEnable: 'The other direction while the first runs', onRunInInhibit: 'A run during the wait between starts', onRunWithoutMains: 'A run without mains', onMainsLostRunning: 'The mains are lost under way', onCutWhileSoftStopping: 'The mains are cut during a soft stop', onStopWhileRamping: 'A stop during the start',
  onStartWhileSoftStopping: 'A start during a soft stop', onStartWhileCoasting: 'A start while the motor still turns', onStartLimit: 'Too many starts', kickUnderLimit: 'The boost keeps to the current limit', limitOf: 'What the current limit is measured on', limitBase: 'What the limit is a share of', rampTimeFrom: 'From where the ramp time counts', afterTorqueRamp: 'After the torque ramp',
  controlledPoles: 'Poles it controls', bypass: 'Bypass', bypassSensed: 'It sees whether its bypass closed', lineRelay: 'The relay for a line contactor is in', contactorFeedback: 'Feedback of a contactor', thermalMemoryOff: 'Heat image without supply', faultMemoryOff: 'Faults without supply', phaseSequence: 'Sequence of the phases', dialsRead: 'When its dials are read', dialSwitchWins: 'A dial and a switch that disagree',
}; // prettier-ignore

/** What a device does, by the value in its profile. */
const meanings: Readonly<Record<string, string>> = {
  levelForwardReverse: 'a contact each way', levelRunDirection: 'run and direction', pulseStartStopDirection: 'start and stop pulses', pulseForwardReverseStop: 'a start pulse each way', twoEnables: 'an enable each way', twoWire: 'two wires', threeWire: 'three wires',
  fault: 'a fault', stop: 'stops', firstWins: 'the first one wins', ignoreUntilStopped: 'is ignored until it stands', reverseThroughZero: 'turns round through zero', needFreshEdge: 'waits for a new start', followLevel: 'starts by itself', lost: 'is lost', accepted: 'counts', acts: 'stops it', ignored: 'is ignored', wins: 'wins',
  catch: 'catches the turning motor', waitUntilStill: 'waits until it stands', startAtZeroHz: 'starts from zero: its current may trip it', clamp: 'runs at the lowest', holdLast: 'keeps the last speed', preset: 'goes to a preset', coast: 'coasts', ramp: 'along the ramp', rampThenDcHold: 'along the ramp, then holds with direct current', binary: 'in binary code', priority: 'the highest one wins',
  waits: 'waits', blocked: 'does not start', faultAfter: 'a fault after a time', rampFromPresent: 'ramps up from where it is', rampFromBegin: 'ramps up from the beginning', mean: 'the mean of the phases', highestPhase: 'the highest phase', motorAmps: 'the motor’s rated current', begin: 'from the beginning voltage', hold: 'holds the torque', internal: 'inside', none: 'none',
  runOnly: 'while it runs', runToEndOfStop: 'from the run to the end of the stop', kept: 'are kept', cleared: 'are cleared', any: 'any', lock: 'only the right one', powerUp: 'when its supply comes', live: 'at any time', switch: 'the switch wins', true: 'yes', false: 'no',
}; // prettier-ignore

/**
 * What a device does where it matters, in words.
 *
 * @param policy as the profile has it: fixed, by a setting, or not known
 * @example sayPolicy({ fixed: 'needFreshEdge' }) // 'waits for a new start'
 */
export function sayPolicy(
  policy:
    | 'unknown'
    | { readonly fixed: Args[string] }
    | { readonly setting: string; readonly values?: Readonly<Record<string, Args[string]>> },
): string {
  if (policy === 'unknown') return 'not known: the worse is assumed';
  if ('fixed' in policy) return meanings[String(policy.fixed)] ?? String(policy.fixed);
  const by = Object.entries(policy.values ?? {}).map(
    ([value, meaning]) => `${value}: ${meanings[String(meaning)] ?? String(meaning)}`,
  );
  return `by setting ${policy.setting}${by.length > 0 ? ` (${by.join('; ')})` : ''}`;
}
