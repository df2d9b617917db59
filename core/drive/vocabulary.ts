import * as v from 'valibot';
import { inputTasks } from '../catalogue/index.js';

const seconds = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(36000));
const millis = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(3_600_000));
const hertz = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1000));
const fresh = v.picklist(['needFreshEdge', 'followLevel']);

const controlEntries = {
  startMethod: v.picklist([
    'levelForwardReverse',
    'levelRunDirection',
    'pulseStartStopDirection',
    'pulseForwardReverseStop',
  ]),
  onBothDirections: v.optional(v.picklist(['stop', 'fault', 'firstWins']), 'stop'),
  onOppositeStart: v.optional(
    v.picklist(['reverseThroughZero', 'ignoreUntilStopped']),
    'reverseThroughZero',
  ),
  onStartHeld: v.optional(fresh, 'needFreshEdge'),
  onPowerReturn: v.optional(fresh, 'needFreshEdge'),
  onEnableReturn: v.optional(fresh, 'needFreshEdge'),
  onFaultReset: v.optional(fresh, 'needFreshEdge'),
  onTakeover: v.optional(fresh, 'needFreshEdge'),
  onPlaceChange: v.optional(v.picklist(['stop', 'keepRunning', 'follow']), 'stop'),
  startEdgeWithStopReturn: v.optional(v.picklist(['accepted', 'lost']), 'lost'),
  terminalStopUnderKeypad: v.optional(v.picklist(['acts', 'ignored']), 'acts'),
  keypadStopAlways: v.optional(v.boolean(), true),
  commandSource: v.optional(v.picklist(['terminals', 'keypad', 'bus']), 'terminals'),
  referenceSource: v.optional(
    v.picklist(['base', 'keypad', 'panelDial', 'ai1', 'ai2', 'preset', 'motorPot', 'bus']),
    'base',
  ),
  startWhileCoasting: v.optional(
    v.picklist(['waitUntilStill', 'catch', 'startAtZeroHz', 'fault']),
    'waitUntilStill',
  ),
  belowMin: v.optional(v.picklist(['clamp', 'sleep']), 'clamp'),
  onReferenceLoss: v.optional(v.picklist(['fault', 'holdLast', 'stop', 'preset']), 'fault'),
  lossThresholdMa: v.optional(v.pipe(v.number(), v.minValue(0), v.maxValue(20)), 3),
  /** Whether the output for running tells a run that is given, at 0 Hz too, or only a motor that is driven faster than that. */
  runningAtZero: v.optional(v.boolean(), false),
  /** Whether a fault outlives the supply of the device, so that switching off and on does not clear it. */
  faultMemoryOff: v.optional(v.picklist(['cleared', 'kept']), 'cleared'),
  bothDirectionsFaultSelfClears: v.optional(v.boolean(), false),
  motorPotHzPerS: v.optional(hertz),
  keepOnPowerOff: v.optional(v.boolean()),
  keepReference: v.optional(v.boolean()),
  dcBrakeS: v.optional(seconds),
  dcBrakeFromHz: v.optional(hertz),
  jogWhileRunning: v.optional(v.picklist(['ignored', 'wins']), 'ignored'),
  stopMode: v.optional(v.picklist(['ramp', 'coast', 'dcBrake', 'rampThenDcHold']), 'ramp'),
  quickStopS: v.optional(seconds),
  noReverse: v.optional(v.boolean(), false),
  maxHz: v.optional(v.pipe(hertz, v.gtValue(0)), 50),
  minHz: v.optional(hertz, 0),
  rampReferenceHz: v.optional(v.pipe(hertz, v.gtValue(0))),
  accelS: v.optional(seconds, 5),
  decelS: v.optional(seconds, 10),
  accel2S: v.optional(seconds),
  decel2S: v.optional(seconds),
  sCurvePct: v.optional(v.pipe(v.number(), v.minValue(0), v.maxValue(100)), 0),
  reverseDeadMs: v.optional(millis, 0),
  referenceHz: v.optional(hertz, 0),
  keypadHz: v.optional(hertz),
  presetsHz: v.optional(v.pipe(v.array(hertz), v.maxLength(31)), []),
  presetCoding: v.optional(v.picklist(['binary', 'priority']), 'binary'),
  jogHz: v.optional(hertz, 5),
  jogAccelS: v.optional(seconds),
  jogDecelS: v.optional(seconds),
  skipBandsHz: v.optional(v.pipe(v.array(v.tuple([hertz, hertz])), v.maxLength(8)), []),
  filterMs: v.optional(millis, 5),
  powerUpDelayMs: v.optional(millis, 500),
  channelDiscrepancyMs: v.optional(millis, 500),
  rideThroughMs: v.optional(millis, 120),
  onUndervoltageWhileStopping: v.optional(v.picklist(['fault', 'coast']), 'fault'),
  controlSupplySeparate: v.optional(v.boolean(), false),
  coastS: v.optional(seconds, 0),
};

/** Behaviour of a drive's command logic in words that belong to no family; defaults serve cases and tests only. */
export const controlSchema = v.strictObject(controlEntries);
export type Control = v.InferOutput<typeof controlSchema>;

/** Every input the command logic knows; each is a level 0 or 1, never a button. */
export const inputNames = [
  ...inputTasks,
  'keypadStart',
  'keypadStop',
  'keypadUp',
  'keypadDown',
  'enableA',
  'enableB',
  'mains',
  'controlSupply',
] as const;
export type InputName = (typeof inputNames)[number];
export type Levels = Readonly<Record<InputName, 0 | 1>>;

/** Inputs that are 1 (healthy, present) when a case or a station says nothing of them. */
const healthy: readonly InputName[] = ['stop', 'enableA', 'enableB', 'mains', 'controlSupply'];

/** Levels of a drive to which nothing is connected: stop and enables healthy, supplies present, all else 0. */
export const restingLevels: Levels = Object.freeze(
  Object.fromEntries(inputNames.map((name) => [name, healthy.includes(name) ? 1 : 0])) as Record<
    InputName,
    0 | 1
  >,
);

const level = v.picklist([0, 1]);
const atMs = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(86_400_000));

/** A case as `tactron drive` reads it. */
export const driveCaseSchema = v.strictObject({
  control: controlSchema,
  inputs: v.optional(
    v.strictObject({
      ...Object.fromEntries(inputNames.map((n) => [n, v.optional(level)])),
      referenceHz: v.optional(hertz),
    } as Record<InputName, v.OptionalSchema<typeof level, undefined>> & {
      referenceHz: v.OptionalSchema<typeof hertz, undefined>;
    }),
    {},
  ),
  events: v.optional(
    v.array(
      v.variant('input', [
        v.strictObject({ atMs, input: v.literal('referenceHz'), level: hertz }),
        v.strictObject({ atMs, input: v.picklist(inputNames), level }),
      ]),
    ),
    [],
  ),
  sampleMs: v.pipe(v.array(atMs), v.maxLength(100_000)),
});
export type DriveCase = v.InferOutput<typeof driveCaseSchema>;

/** What the vocabulary names and the command logic cannot do yet, with the path in a case. */
export function notYetInControl(control: Control): { path: string; what: string } | undefined {
  if (control.commandSource === 'bus')
    return { path: 'control.commandSource', what: 'commands over a bus' };
  if (control.referenceSource === 'bus')
    return { path: 'control.referenceSource', what: 'a reference over a bus' };
  return undefined;
}
