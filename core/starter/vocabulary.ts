import * as v from 'valibot';
import { tripClasses } from '../motor/index.js';

const seconds = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(36_000));
const millis = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(3_600_000));
const percent = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1000));
const share = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1));
const amps = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(100_000));
const fresh = v.optional(v.picklist(['needFreshEdge', 'followLevel']), 'needFreshEdge');

/** How the voltage comes on; the words of the run-up. */
export const startSchema = v.strictObject({
  kind: v.picklist([
    'direct',
    'fixedVoltage',
    'voltageRamp',
    'currentLimit',
    'rampAndLimit',
    'torqueRamp',
  ]),
  fraction: v.optional(share),
  rampS: v.optional(seconds),
  limitA: v.optional(amps),
  kickFraction: v.optional(share),
  kickS: v.optional(seconds),
  initialTorquePct: v.optional(percent),
  torqueLimitPct: v.optional(percent),
});

/** Behaviour of a soft starter's command logic in words that belong to no family; defaults serve cases and tests only. */
export const starterControlSchema = v.strictObject({
  startMethod: v.picklist(['twoWire', 'threeWire', 'twoEnables']),
  start: startSchema,
  stopKind: v.optional(v.picklist(['coast', 'softStop', 'brake']), 'coast'),
  softStopS: v.optional(seconds, 0),
  softStopBy: v.optional(v.picklist(['torque', 'voltage']), 'voltage'),
  endTorquePct: v.optional(percent, 0),
  endVoltagePct: v.optional(percent, 0),
  inhibitS: v.optional(seconds, 0),
  reversePauseS: v.optional(seconds, 0),
  startLimitS: v.optional(seconds, 60),
  tripClass: v.optional(v.picklist(tripClasses), '10'),
  bypassAtPct: v.optional(percent, 120),
  mainsMissingS: v.optional(seconds, 5),
  phaseLossMs: v.optional(millis, 1000),
  powerUpDelayMs: v.optional(millis, 500),
  onControlReturn: fresh,
  onMainsReturn: fresh,
  onFaultReset: fresh,
  onTakeover: fresh,
  onStartHeld: fresh,
  autoResetAttempts: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(100)), 0),
  autoResetDelayS: v.optional(seconds, 10),
  onAutoReset: fresh,
  onThermistorCooled: fresh,
  onOverloadCooled: fresh,
  startEdgeWithStopReturn: v.optional(v.picklist(['lost', 'accepted']), 'lost'),
  onBothDirections: v.optional(v.picklist(['stop', 'fault', 'firstWins']), 'stop'),
  onOppositeEnable: v.optional(v.picklist(['waits', 'ignored', 'fault']), 'waits'),
  onRunInInhibit: v.optional(v.picklist(['waits', 'lost']), 'waits'),
  onRunWithoutMains: v.optional(v.picklist(['blocked', 'faultAfter']), 'blocked'),
  onMainsLostRunning: v.optional(v.picklist(['fault', 'coast']), 'fault'),
  onCutWhileSoftStopping: v.optional(v.picklist(['coast', 'fault']), 'coast'),
  onStopWhileRamping: v.optional(v.picklist(['coast', 'softStop']), 'coast'),
  onStartWhileSoftStopping: v.optional(
    v.picklist(['rampFromPresent', 'afterRest', 'lost']),
    'rampFromPresent',
  ),
  onStartWhileCoasting: v.optional(
    v.picklist(['rampFromBegin', 'afterRest', 'fault']),
    'rampFromBegin',
  ),
  onStartLimit: v.optional(v.picklist(['fault', 'fullVoltage']), 'fault'),
  endRampAtSpeed: v.optional(v.boolean(), true),
  kickUnderLimit: v.optional(v.boolean(), true),
  limitOf: v.optional(v.picklist(['highestPhase', 'mean']), 'highestPhase'),
  limitBase: v.optional(v.picklist(['motorAmps', 'deviceAmps']), 'motorAmps'),
  rampTimeFrom: v.optional(v.picklist(['begin', 'zero']), 'begin'),
  afterTorqueRamp: v.optional(v.picklist(['hold', 'fullVoltage']), 'hold'),
  controlledPoles: v.optional(v.picklist([2, 3]), 3),
  bypass: v.optional(v.picklist(['internal', 'external', 'none']), 'internal'),
  bypassSensed: v.optional(v.boolean(), true),
  lineRelay: v.optional(v.picklist(['runToEndOfStop', 'runOnly', 'always']), 'runToEndOfStop'),
  contactorMs: v.optional(millis, 100),
  contactorFeedback: v.optional(v.picklist(['none', 'monitored']), 'none'),
  thermalMemoryOff: v.optional(v.picklist(['kept', 'cleared', 'assumedHot']), 'kept'),
  faultMemoryOff: v.optional(v.picklist(['kept', 'cleared']), 'kept'),
  phaseSequence: v.optional(v.picklist(['any', 'lock']), 'any'),
  dialsRead: v.optional(v.picklist(['powerUp', 'atStop', 'live']), 'powerUp'),
  dialSwitchWins: v.optional(v.picklist(['switch', 'dial']), 'switch'),
  noReverse: v.optional(v.boolean(), false),
  commandSource: v.optional(v.picklist(['terminals', 'keypad']), 'terminals'),
});
export type StarterControl = v.InferOutput<typeof starterControlSchema>;

/** Inputs of the command logic; each is a level, never a button. */
export const starterInputs = [
  'run',
  'start',
  'stop',
  'forward',
  'reverse',
  'coastNow',
  'reset',
  'externalFault',
  'enable',
  'thermistor',
  'controlSupply',
  'mains',
  'phase1',
  'phase2',
  'phase3',
  'lineContactor',
  'keypadStart',
  'keypadStop',
] as const;
export type StarterInput = (typeof starterInputs)[number];
export type StarterLevels = Readonly<Record<StarterInput, 0 | 1>>;

/** Inputs that are 1 when nothing is said of them. */
const healthy: readonly StarterInput[] = [
  'stop',
  'enable',
  'thermistor',
  'controlSupply',
  'mains',
  'phase1',
  'phase2',
  'phase3',
  'lineContactor',
];

/** Levels of a soft starter to which nothing is connected: supplies and whatever permits are there, all else 0. */
export const restingStarter: StarterLevels = Object.freeze(
  Object.fromEntries(starterInputs.map((n) => [n, healthy.includes(n) ? 1 : 0])) as Record<
    StarterInput,
    0 | 1
  >,
);

export const starterFaults = [
  'thermistor',
  'overload',
  'startTooLong',
  'phaseLoss',
  'mainsMissing',
  'mainsLost',
  'bothDirections',
  'externalFault',
  'underload',
  'shortedPole',
  'bypassOpen',
  'phaseSequence',
] as const;
export type StarterFault = (typeof starterFaults)[number];

export const starterStates = [
  'off',
  'startingUp',
  'noMains',
  'ready',
  'blocked',
  'inhibit',
  'kick',
  'ramping',
  'running',
  'softStopping',
  'braking',
  'coasting',
  'faulted',
  'enableOpen',
] as const;
export type StarterStateName = (typeof starterStates)[number];
