import type { CircuitQuestion, DeviceLogic, LogicCondition, Reading } from '../motor/index.js';
import { steady, type Path } from '../numeric/index.js';
import { scaleAnalogue, type AnalogueScale } from './analogue.js';
import { commandPlace, isPulse, terminalDemand } from './command.js';
import { outputStretch } from './motion.js';
import type { DcLink } from './power.js';
import { nextCrossing } from './ramp.js';
import { faultNames, type DriveState, type Motion } from './state.js';
import { initialDrive, stepDrive, wakeDrive, type DriveInputs } from './step.js';
import { stateNames, viewDrive, type DriveView } from './view.js';
import {
  inputNames,
  restingLevels,
  type Control,
  type InputName,
  type Levels,
} from './vocabulary.js';

/** A drive as it is installed: its command logic under the settings keyed, and how it reads its reference. */
export interface DriveSpec {
  readonly kind: 'drive';
  readonly control: Control;
  readonly link: DcLink | undefined;
  /** Analogue input that gives the reference, by its place among the analogue inputs; undefined where none does. */
  readonly reference:
    | { readonly input: number; readonly liveZero: boolean; readonly scale: AnalogueScale }
    | undefined;
  /** Output frequency from which a brake is released, Hz. */
  readonly brakeReleaseHz: number;
  /** A relay of the device works a brake. */
  readonly worksBrake: boolean;
}

/** Below this nothing turns that a person could see: the end resistance of a dial is never quite nothing. */
const STANDSTILL_HZ = 0.05;
/** What a crossing reckoned in microseconds may miss, Hz. */
const BRAKE_HYSTERESIS_HZ = 1e-3;
const runningStates: readonly string[] = [
  'accelerating',
  'atSpeed',
  'decelerating',
  'reversePause',
  'jogging',
];
const zeroHz: Path = { stretches: [steady(0, 0)], endUs: 0, rest: 0 };

/** A drive as logic of a device: the command logic of this module behind the terminals of its profile. */
export function driveLogic(spec: DriveSpec): DeviceLogic<DriveState, DriveInputs> {
  const { control, link } = spec;
  const levelsOf = rememberedLevels();
  const viewOf = remembered((s, t) => viewDrive(control, link, s, t));
  const relaysAt = remembered((s, t) => relaysOf(spec, s, viewOf(s, t)));
  return {
    states: stateNames,
    faults: faultNames,
    init: () => initialDrive(control, { levels: { ...restingLevels, mains: 0 }, referenceHz: 0 }),
    sense: (reading, before) => inputsOf(spec, reading, levelsOf(reading, before.raw)),
    step: (s, inputs, t) => stepDrive(control, link, s, inputs, t),
    wake: (s, t) => Math.min(wakeDrive(s, t), brakeCrossing(spec, s.motion, t)),
    view: viewOf,
    demand: remembered((s, t) => {
      const alive = s.power.logic !== 'off';
      return {
        output: outputOf(s.motion),
        supplies: alive,
        get relays() {
          return relaysAt(s, t);
        },
        analogue: { frequency: alive ? outputStretch(s.motion, t) : steady(0, t) },
      };
    }),
    why: (s, t) => [
      ...powerConditions(s),
      { ask: 'enables' },
      ...inhibitConditions(s),
      ...commandConditions(control, s),
      ...outcome(spec, s, viewOf(s, t)),
    ],
    rested: (s, t) => restedDrive(control, s, t),
  };
}

function inputsOf(spec: DriveSpec, r: Reading, levels: Levels): DriveInputs {
  const { control, reference } = spec;
  const shaft = { hz: r.shaftHz, turns: r.shaftTurns };
  const phaseMissing = r.mains === 1;
  if (control.referenceSource === 'panelDial')
    return {
      levels,
      referenceHz: r.panelDial * control.maxHz,
      referenceLost: false,
      phaseMissing,
      shaft,
    };
  if (!reference) return { levels, referenceHz: 0, referenceLost: false, phaseMissing, shaft };
  const signal = r.analogue[reference.input] ?? 0;
  const referenceLost = reference.liveZero && signal < control.lossThresholdMa;
  const referenceHz = Math.max(0, scaleAnalogue(signal, reference.scale).hz);
  return { levels, referenceHz, referenceLost, phaseMissing, shaft };
}

/** What is told of a state at a moment; the same object while the same is asked for again. */
function remembered<T>(tell: (s: DriveState, t: number) => T): (s: DriveState, t: number) => T {
  let last: { readonly s: DriveState; readonly t: number; readonly told: T } | undefined;
  return (s, t) => {
    if (last?.s !== s || last.t !== t) last = { s, t, told: tell(s, t) };
    return last.told;
  };
}

/** Levels as they are read; those of the last reading where nothing that makes them is otherwise. */
function rememberedLevels(): (r: Reading, before: Levels) => Levels {
  let last: { readonly r: Reading; readonly levels: Levels } | undefined;
  return (r, before) => {
    const levels = last && readsAlike(r, last.r) ? last.levels : levelsIn(r);
    last = { r, levels };
    return levels === before || sameLevels(levels, before) ? before : levels;
  };
}

const readsAlike = (x: Reading, y: Reading): boolean =>
  x.tasks === y.tasks &&
  x.keys === y.keys &&
  x.enableA === y.enableA &&
  x.enableB === y.enableB &&
  x.mains > 0 === y.mains > 0;

function levelsIn(r: Reading): Levels {
  const levels: Record<InputName, 0 | 1> = { ...restingLevels, mains: r.mains > 0 ? 1 : 0 };
  for (const [task, level] of Object.entries(r.tasks))
    if (task in levels) levels[task as InputName] = level;
  levels.enableA = r.enableA;
  levels.enableB = r.enableB;
  levels.keypadStart = r.keys.start ? 1 : 0;
  levels.keypadStop = r.keys.stop ? 1 : 0;
  levels.keypadUp = r.keys.up ? 1 : 0;
  levels.keypadDown = r.keys.down ? 1 : 0;
  if (r.keys.reset) levels.reset = 1;
  return levels;
}

function sameLevels(x: Levels, y: Levels): boolean {
  for (const name of inputNames) if (x[name] !== y[name]) return false;
  return true;
}

function outputOf(m: Motion): ReturnType<DeviceLogic<DriveState, DriveInputs>['demand']>['output'] {
  switch (m.kind) {
    case 'ramp':
      return { kind: 'frequency', path: m.ramp };
    case 'pause':
      return { kind: 'frequency', path: zeroHz };
    case 'dc':
      return { kind: 'directCurrent', path: m.path };
    default:
      return { kind: 'off' };
  }
}

function relaysOf(
  { control, brakeReleaseHz }: DriveSpec,
  s: DriveState,
  { state, fault, hz }: DriveView,
): Readonly<Record<string, boolean>> {
  if (s.power.logic !== 'on') return {};
  const atZero = control.runningAtZero && s.motion.kind === 'ramp' && state === 'blocked';
  const running = atZero || runningStates.includes(state);
  return {
    running,
    healthy: fault === null,
    fault: fault !== null,
    atSpeed: state === 'atSpeed',
    ready: state === 'ready',
    reversing: running && hz < 0,
    local: s.levels.local === 1,
    brakeRelease: running && Math.abs(hz) >= brakeReleaseHz - BRAKE_HYSTERESIS_HZ,
  };
}

/** Next moment at which the output passes the frequency of the brake; Infinity where no relay works a brake. */
function brakeCrossing(spec: DriveSpec, motion: Motion, t: number): number {
  if (motion.kind !== 'ramp' || !spec.worksBrake) return Infinity;
  // The relay follows at one level on the way up and at another, a hair below, on the way down.
  return Math.min(
    nextCrossing(motion.ramp, spec.brakeReleaseHz, t),
    nextCrossing(motion.ramp, spec.brakeReleaseHz - 2 * BRAKE_HYSTERESIS_HZ, t),
  );
}

const about = (...tasks: InputName[]): { tasks: readonly string[] } => ({ tasks });

function powerConditions({ power, fault }: DriveState): LogicCondition[] {
  const { logic } = power;
  return [
    { code: 'logic', met: logic === 'on', args: { state: logic }, about: 'device' },
    { code: 'fault', met: fault === null, args: { name: fault ?? '' }, about: 'device' },
  ];
}

function inhibitConditions(s: DriveState): LogicCondition[] {
  return (['outputInhibit', 'quickStop', 'externalFault'] as const).map((task) => ({
    code: 'inhibit',
    met: s.levels[task] === 0,
    args: {},
    about: about(task),
    follow: true,
  }));
}

const startTasks: readonly InputName[] = [
  'forward',
  'run',
  'start',
  'startForward',
  'reverse',
  'startReverse',
];

function commandConditions(control: Control, s: DriveState): (LogicCondition | CircuitQuestion)[] {
  const terminals = commandPlace(control, s.levels) === 'terminals';
  const pulse = isPulse(control);
  const given = pulse ? s.latch !== 0 : terminalDemand(control, s.levels) || s.carried !== 0;
  return [
    { code: 'place', met: terminals, args: { local: s.levels.local === 1 }, about: about('local') },
    { ask: 'common' },
    { code: 'stop', met: s.levels.stop === 1, args: {}, about: about('stop'), follow: true },
    { code: 'demand', met: given, args: { pulse }, about: about(...startTasks), follow: true },
    { ask: 'warnings' },
    { code: 'fresh', met: !s.needFresh, args: {}, about: 'device' },
  ];
}

function outcome(
  { control }: DriveSpec,
  s: DriveState,
  { blockedBy }: DriveView,
): LogicCondition[] {
  const together = blockedBy !== 'bothDirections' && blockedBy !== 'startsTogether';
  const coasts = s.motion.kind === 'coast' && control.startWhileCoasting === 'waitUntilStill';
  const { referenceSource } = control;
  const hz =
    referenceSource === 'keypad'
      ? s.keypadHz
      : referenceSource === 'motorPot'
        ? s.potHz
        : s.referenceHz;
  const bits = [s.levels.presetBit0, s.levels.presetBit1, s.levels.presetBit2];
  const presets = referenceSource === 'preset' || bits.some(Boolean);
  return [
    { code: 'direction', met: blockedBy !== 'noReverse', args: {}, about: 'device' },
    { code: 'together', met: together, args: {}, about: 'device' },
    { code: 'coasting', met: !coasts, args: {}, about: 'device' },
    { code: 'reference', met: presets || hz >= STANDSTILL_HZ, args: { hz }, about: 'reference' },
  ];
}

/** Times of edges older than any filter can ask for, and ramps that are over, are all the same. */
function restedDrive(control: Control, s: DriveState, t: number): DriveState {
  const filterUs = Math.round(control.filterMs * 1000);
  const old = (at: number): number => (t - at > filterUs ? -Infinity : at);
  const stopReturnedUs = old(s.stopReturnedUs);
  const startEdgeUs = { forward: old(s.startEdgeUs.forward), reverse: old(s.startEdgeUs.reverse) };
  return { ...s, stopReturnedUs, startEdgeUs, motion: restedMotion(s.motion, t) };
}

function restedMotion(m: Motion, t: number): Motion {
  if (m.kind !== 'ramp' || t < m.ramp.endUs) return m;
  const { rest } = m.ramp;
  return { ...m, ramp: { stretches: [steady(rest, 0)], endUs: 0, rest } };
}
