import { imageTau, REST_FACTOR } from '../motor/index.js';
import { askedOf, barredBy, levelAsked, supplySeen, waitsUntil } from './command.js';
import {
  asRad,
  planBrake,
  planStart,
  planStop,
  runPoint,
  wayOf,
  type FedMachine,
} from './plan-run.js';
import type { Direction, Heat, Motion, StarterState } from './state.js';
import type { StarterControl, StarterFault, StarterInput, StarterLevels } from './vocabulary.js';

/** What reaches the command logic at one moment. */
export interface StarterInputs {
  readonly levels: StarterLevels;
  /** Speed of the shaft as Hz, in the direction of the supply's sequence, and whether it turns by itself. */
  readonly shaftHz: number;
  readonly shaftTurns: boolean;
  /** −1 where the supply turns the other way; +1 also where it cannot be seen. */
  readonly rotation: 1 | -1;
}

/** What the logic of a starter is made from. */
export interface StarterCore {
  readonly control: StarterControl;
  readonly machine: FedMachine;
}

const us = (s: number): number => Math.round(s * 1e6);
const off: Motion = { kind: 'off' };
const cold: Heat = { value: 0, atUs: 0, toward: 0, tauS: 1 };

/** State at t = 0 with inputs that have been steady for ever; a run level present then follows `onControlReturn`. */
export function initialStarter(control: StarterControl, levels: StarterLevels): StarterState {
  const fed = levels.controlSupply === 1;
  return {
    levels,
    control: fed ? 'on' : 'off',
    readyUs: 0,
    fault: null,
    needFresh: fed && levelAsked(control, levels) && control.onControlReturn === 'needFreshEdge',
    latch: 0,
    firstDirection: levels.forward === levels.reverse ? 0 : levels.forward ? 1 : -1,
    motion: off,
    unfedUs: -Infinity,
    lastDirection: 0,
    rotation: 1,
    missingUs: Infinity,
    phaseUs: Infinity,
    stopReturnedUs: -Infinity,
    resetsLeft: control.autoResetAttempts,
    autoResetUs: Infinity,
    heat: cold,
    lineAskedUs: Infinity,
  };
}

/** Heat of the thermal image at t. */
export function heatAt({ control, machine }: StarterCore, s: StarterState, t: number): number {
  const m = s.motion;
  if (m.kind === 'off' || m.kind === 'coast') return heatOf(s.heat, t);
  const p = runPoint(m.run, t);
  if (t <= m.run.settledUs) return p.heat;
  const toward = (p.amps / machine.motorA) ** 2;
  const tauS = imageTau(control.tripClass);
  return heatOf({ value: p.heat, atUs: m.run.settledUs, toward, tauS }, t);
}

/** Marks of the image in a time constant, between which it is shown as a straight line within 0.1 % of its trip. */
const MARKS = 16;
/** Distance from where it goes below which it is taken to have come there. */
const HEAT_REST = 0.002;

/** The two marks of the image around t; the later one Infinity where it no longer changes. */
export function heatMarks(
  { control, machine }: StarterCore,
  s: StarterState,
  t: number,
): { fromUs: number; toUs: number } {
  const m = s.motion;
  let image = s.heat;
  if (m.kind !== 'off' && m.kind !== 'coast') {
    if (t < m.run.settledUs) return { fromUs: t, toUs: m.run.settledUs };
    const p = m.run.points[m.run.points.length - 1];
    const toward = (p.amps / machine.motorA) ** 2;
    image = { value: p.heat, atUs: m.run.settledUs, toward, tauS: imageTau(control.tripClass) };
  }
  if (Math.abs(heatOf(image, t) - image.toward) < HEAT_REST) return { fromUs: t, toUs: Infinity };
  const piece = us(image.tauS / MARKS);
  const fromUs = image.atUs + Math.floor((t - image.atUs) / piece) * piece;
  return { fromUs, toUs: fromUs + piece };
}

const heatOf = ({ value, atUs, toward, tauS }: Heat, t: number): number =>
  toward + (value - toward) * Math.exp(-(t - atUs) / 1e6 / tauS);

/** Moment at which an image that cools is below a value; Infinity where it does not come there. */
function coolUs({ value, atUs, toward, tauS }: Heat, below: number): number {
  if (value < below) return atUs;
  if (toward >= below) return Infinity;
  return atUs + us(tauS * Math.log((value - toward) / (below - toward))) + 1;
}

/** The motor is let go: it coasts where it turns, the image cools, and waiting times count from here. */
function unfed(core: StarterCore, s: StarterState, turns: boolean, t: number): StarterState {
  const m = s.motion;
  if (m.kind === 'off' || m.kind === 'coast') return s;
  const value = heatAt(core, s, t);
  return {
    ...s,
    motion: turns ? { kind: 'coast' } : off,
    heat: { value, atUs: t, toward: 0, tauS: REST_FACTOR * imageTau(core.control.tripClass) },
    unfedUs: t,
    lastDirection: m.direction,
    phaseUs: Infinity,
  };
}

/** A run ended otherwise than by its stop: the latch is lost, a level is followed again or not. */
function interrupted(control: StarterControl, s: StarterState, follow: boolean): StarterState {
  const held = levelAsked(control, s.levels);
  return { ...s, latch: 0, needFresh: s.needFresh || (held && !follow) };
}

function fail(
  core: StarterCore,
  s: StarterState,
  fault: StarterFault,
  inputs: StarterInputs,
  t: number,
): StarterState {
  if (s.fault) return s;
  const { control } = core;
  const at = unfed(core, s, inputs.shaftTurns || inputs.shaftHz !== 0, t);
  const resets = at.resetsLeft > 0;
  return {
    ...interrupted(control, at, true),
    fault,
    missingUs: Infinity,
    lineAskedUs: Infinity,
    autoResetUs: resets ? t + us(control.autoResetDelayS) : Infinity,
  };
}

/** Control supply: without it the motor is unfed at once, latch and waiting run are lost. */
function watchControl(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const fed = s.levels.controlSupply === 1;
  if (!fed) {
    if (s.control === 'off') return s;
    const at = unfed(core, s, inputs.shaftTurns || inputs.shaftHz !== 0, t);
    return {
      ...at,
      control: 'off',
      readyUs: Infinity,
      latch: 0,
      needFresh: false,
      missingUs: Infinity,
      phaseUs: Infinity,
      lineAskedUs: Infinity,
      fault: control.faultMemoryOff === 'kept' ? s.fault : null,
      heat: control.thermalMemoryOff === 'cleared' ? { ...at.heat, value: 0, atUs: t } : at.heat,
    };
  }
  if (s.control === 'off') {
    const heat =
      control.thermalMemoryOff === 'assumedHot'
        ? { value: 1, atUs: t, toward: 0, tauS: REST_FACTOR * imageTau(control.tripClass) }
        : s.heat;
    return { ...s, control: 'startingUp', readyUs: t + us(control.powerUpDelayMs / 1000), heat };
  }
  if (s.control === 'startingUp' && t >= s.readyUs) {
    const held = levelAsked(control, s.levels);
    return { ...s, control: 'on', needFresh: held && control.onControlReturn === 'needFreshEdge' };
  }
  return s;
}

type Edges = Readonly<Partial<Record<StarterInput, 'rise' | 'fall'>>>;

function edgesOf(before: StarterLevels, now: StarterLevels): Edges {
  const edges: Partial<Record<StarterInput, 'rise' | 'fall'>> = {};
  for (const name in now) {
    const key = name as StarterInput;
    if (before[key] !== now[key]) edges[key] = now[key] ? 'rise' : 'fall';
  }
  return edges;
}

/** Start, stop and directions at the terminals. */
function watchTerminals(core: StarterCore, s: StarterState, edges: Edges, t: number): StarterState {
  const { control } = core;
  const l = s.levels;
  const first: Direction =
    l.forward === l.reverse ? (l.forward ? s.firstDirection : 0) : l.forward ? 1 : -1;
  if (first !== s.firstDirection) s = { ...s, firstDirection: first };
  if (control.commandSource === 'keypad') return watchKeys(s, edges);
  if (edges.stop === 'fall') s = { ...s, latch: 0 };
  if (edges.stop === 'rise') s = stopReturned(control, { ...s, stopReturnedUs: t }, edges);
  if (s.needFresh && !levelAsked(control, l) && l.start === 0) s = { ...s, needFresh: false };
  if (control.startMethod !== 'threeWire' || edges.start !== 'rise') return s;
  if (l.stop === 0 || s.fault || barredBy(s)) return s;
  if (t === s.stopReturnedUs && control.startEdgeWithStopReturn === 'lost') return s;
  return { ...s, latch: 1 };
}

/** Under the keypad its own keys start and stop; a stop at the terminals acts as well. */
function watchKeys(s: StarterState, edges: Edges): StarterState {
  if (edges.keypadStop === 'rise' || s.levels.stop === 0) return s.latch ? { ...s, latch: 0 } : s;
  const free = edges.keypadStart === 'rise' && !s.fault && !barredBy(s);
  return free ? { ...s, latch: 1 } : s;
}

function stopReturned(control: StarterControl, s: StarterState, edges: Edges): StarterState {
  const follows = control.onStartHeld === 'followLevel';
  if (control.startMethod !== 'threeWire')
    return levelAsked(control, s.levels) && !follows ? { ...s, needFresh: true } : s;
  const held = s.levels.start === 1 && edges.start !== 'rise';
  return held && follows && !s.fault && !barredBy(s) ? { ...s, latch: 1 } : s;
}

/** Faults that come from outside, and both directions together. */
function watchFaults(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const l = s.levels;
  if (l.thermistor === 0) s = fail(core, s, 'thermistor', inputs, t);
  if (l.externalFault === 1) s = fail(core, s, 'externalFault', inputs, t);
  const both = control.startMethod === 'twoEnables' && l.forward === 1 && l.reverse === 1;
  if (both && control.onBothDirections === 'fault') s = fail(core, s, 'bothDirections', inputs, t);
  const seen = supplySeen(l);
  if (control.phaseSequence === 'lock' && seen === 2 && inputs.rotation < 0)
    s = fail(core, s, 'phaseSequence', inputs, t);
  const fedOrAsked = s.motion.kind === 'start' || s.motion.kind === 'softStop';
  const since = seen === 1 && fedOrAsked ? Math.min(s.phaseUs, t) : Infinity;
  if (since !== s.phaseUs) s = { ...s, phaseUs: since };
  if (t >= since + us(control.phaseLossMs / 1000)) s = fail(core, s, 'phaseLoss', inputs, t);
  return s;
}

/** Whether what a fault was about is gone. */
function causeGone(core: StarterCore, s: StarterState, inputs: StarterInputs, t: number): boolean {
  const l = s.levels;
  switch (s.fault) {
    case 'thermistor':
      return l.thermistor === 1;
    case 'externalFault':
      return l.externalFault === 0;
    case 'bothDirections':
      return !(l.forward && l.reverse);
    case 'overload':
      return heatAt(core, s, t) < 1;
    case 'phaseSequence':
      return inputs.rotation > 0;
    default:
      return true;
  }
}

function watchReset(
  core: StarterCore,
  s: StarterState,
  edges: Edges,
  inputs: StarterInputs,
  t: number,
): StarterState {
  if (!s.fault) return s;
  const { control } = core;
  if (!causeGone(core, s, inputs, t)) return s;
  const cleared = (follow: boolean, left = s.resetsLeft): StarterState => ({
    ...interrupted(control, { ...s, fault: null }, follow),
    autoResetUs: Infinity,
    resetsLeft: left,
  });
  const cooled =
    (s.fault === 'thermistor' && control.onThermistorCooled === 'followLevel') ||
    (s.fault === 'overload' && control.onOverloadCooled === 'followLevel');
  if (cooled) return cleared(true);
  if (edges.reset === 'rise')
    return cleared(control.onFaultReset === 'followLevel', control.autoResetAttempts);
  if (t >= s.autoResetUs) return cleared(control.onAutoReset === 'followLevel', s.resetsLeft - 1);
  return s;
}

/** Unfed: waits for what it has to wait for, then begins. */
function standing(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  const rests: Motion['kind'] = turns && s.motion.kind === 'coast' ? 'coast' : 'off';
  if (s.motion.kind !== rests) s = { ...s, motion: rests === 'off' ? off : { kind: 'coast' } };
  const { direction } = askedOf(control, s);
  if (direction === 0 || s.fault || barredBy(s)) {
    // A run that was asked without mains is withdrawn by its stop or its level.
    const pending = s.missingUs !== Infinity && stillAsked(control, s) && !s.fault;
    if (pending) return missing(core, s, inputs, t);
    return s.missingUs === Infinity && s.lineAskedUs === Infinity
      ? s
      : { ...s, missingUs: Infinity, lineAskedUs: Infinity };
  }
  if (t < waitsUntil(control, s, direction))
    return control.onRunInInhibit === 'waits' ? s : lost(control, s);
  if (turns && control.onStartWhileCoasting !== 'rampFromBegin' && s.motion.kind === 'coast')
    return control.onStartWhileCoasting === 'afterRest' ? s : lost(control, s);
  if (supplySeen(s.levels) === 0) return missing(core, s, inputs, t);
  return begin(core, s, direction, inputs, t);
}

/** The run that is asked is forgotten: a level must be opened and closed again, a pulse given anew. */
const lost = (control: StarterControl, s: StarterState): StarterState => ({
  ...s,
  latch: 0,
  needFresh: s.needFresh || levelAsked(control, s.levels),
});

/** Somebody still asks for the run that found no mains. */
const stillAsked = (control: StarterControl, s: StarterState): boolean =>
  s.levels.stop === 1 && (control.startMethod === 'threeWire' || levelAsked(control, s.levels));

/** Asked without mains or contactor: waits for its own contactor, then is refused or trips. */
function missing(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  if (s.lineAskedUs === Infinity) s = { ...s, lineAskedUs: t };
  if (t < s.lineAskedUs + us(control.contactorMs / 1000)) return s;
  if (supplySeen(s.levels) !== 0) return { ...s, missingUs: Infinity };
  if (s.missingUs === Infinity) {
    const follow = control.onMainsReturn === 'followLevel';
    s = { ...interrupted(control, s, follow), missingUs: t };
  }
  const dueUs = s.missingUs + us(control.mainsMissingS);
  return control.onRunWithoutMains === 'faultAfter' && t >= dueUs
    ? fail(core, s, 'mainsMissing', inputs, t)
    : s;
}

/** Speed of the shaft in the direction that is asked, rad/s: against it while it still runs down from the other. */
function turning(
  { machine }: StarterCore,
  { lastDirection, motion }: StarterState,
  direction: Direction,
  { shaftHz }: StarterInputs,
): number {
  const of = motion.kind === 'off' || motion.kind === 'coast' ? lastDirection : motion.direction;
  const against = of !== 0 && of !== direction;
  return asRad(machine, Math.abs(shaftHz)) * (against ? -1 : 1);
}

function begin(
  core: StarterCore,
  s: StarterState,
  direction: Direction,
  inputs: StarterInputs,
  t: number,
  fraction = 0,
): StarterState {
  const { control, machine } = core;
  const rad = turning(core, s, direction, inputs);
  const phases = supplySeen(s.levels) === 2 ? 3 : 2;
  const plain = wayOf(control);
  const way =
    fraction > 0
      ? { ...plain, kickS: 0, fraction: Math.max(fraction, plain.fraction ?? 0) }
      : plain;
  const run = planStart(control, machine, { rad, heat: heatAt(core, s, t), t, phases, way });
  const limitUs = t + us(control.startLimitS);
  return {
    ...s,
    motion: { kind: 'start', direction, run, limitUs },
    missingUs: Infinity,
    lineAskedUs: Infinity,
  };
}

/** Fed: mains, stop, direction, and what the run itself comes to. */
function starting(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  if (supplySeen(s.levels) === 0) {
    if (control.onMainsLostRunning === 'fault') return fail(core, s, 'mainsLost', inputs, t);
    const follow = control.onMainsReturn === 'followLevel';
    return interrupted(control, unfed(core, s, turns, t), follow);
  }
  const { direction } = askedOf(control, s);
  const barred = barredBy(s);
  if (barred) return interrupted(control, unfed(core, s, turns, t), false);
  if (direction === 0) return stopping(core, s, m, inputs, t);
  if (direction !== m.direction) {
    const coasts = unfed(core, s, turns, t);
    if (control.onOppositeEnable === 'fault') return fail(core, s, 'bothDirections', inputs, t);
    return control.onOppositeEnable === 'ignored' ? lost(control, coasts) : coasts;
  }
  if (t >= m.run.tripUs) return fail(core, s, 'overload', inputs, t);
  if (t >= m.limitUs && m.run.bypassUs > m.limitUs) {
    if (control.onStartLimit === 'fault') return fail(core, s, 'startTooLong', inputs, t);
    return { ...s, motion: { ...m, ...direct(core, s, m, inputs, t) } };
  }
  return s;
}

/** The start goes on at full voltage from where it is. */
function direct(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): Pick<Extract<Motion, { kind: 'start' }>, 'run' | 'limitUs'> {
  const rad = turning(core, s, m.direction, inputs);
  const from = { rad, heat: heatAt(core, s, t), t, phases: 3, way: { kind: 'direct' } } as const;
  return { run: planStart(core.control, core.machine, from), limitUs: Infinity };
}

/** A stop while fed: by its kind, or as a stop during the start is handled. */
function stopping(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control, machine } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  const ramping = t < m.run.bypassUs;
  const kind = ramping && control.onStopWhileRamping === 'coast' ? 'coast' : control.stopKind;
  if (kind === 'coast' || (kind === 'softStop' && control.softStopS === 0))
    return unfed(core, s, turns, t);
  const p = runPoint(m.run, t);
  const from = { rad: p.rad, heat: heatAt(core, s, t), t, share: p.share };
  const planned =
    kind === 'brake' ? planBrake(control, machine, from) : planStop(control, machine, from);
  return {
    ...s,
    motion: { kind: kind === 'brake' ? 'brake' : 'softStop', direction: m.direction, ...planned },
  };
}

/** A soft stop or a brake under way. */
function slowing(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'softStop' | 'brake' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = runPoint(m.run, t).rad > 0;
  if (supplySeen(s.levels) === 0)
    return control.onCutWhileSoftStopping === 'fault'
      ? fail(core, s, 'mainsLost', inputs, t)
      : unfed(core, s, turns, t);
  if (barredBy(s) === 'enableOpen' || barredBy(s) === 'inhibited') return unfed(core, s, turns, t);
  if (t >= m.endUs) return unfed(core, s, turns, t);
  const { direction } = askedOf(control, s);
  if (direction === 0 || barredBy(s)) return s;
  if (direction !== m.direction) return unfed(core, s, turns, t);
  if (m.kind === 'brake' || control.onStartWhileSoftStopping === 'afterRest') return s;
  if (control.onStartWhileSoftStopping === 'lost') return lost(control, s);
  return begin(core, s, direction, inputs, t, runPoint(m.run, t).share);
}

/** A phase lost or back while fed: the run goes on from where it is, with what it now has. */
function phases(
  core: StarterCore,
  s: StarterState,
  before: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const m = s.motion;
  if (m.kind !== 'start') return s;
  const [was, now] = [supplySeen(before.levels), supplySeen(s.levels)];
  if (was === now || was === 0 || now === 0) return s;
  const p = runPoint(m.run, t);
  const rad = turning(core, s, m.direction, inputs);
  const from = { rad, heat: heatAt(core, s, t), t, phases: now === 2 ? 3 : 2 } as const;
  const way = { kind: 'fixedVoltage', fraction: p.share } as const;
  const run = planStart(core.control, core.machine, now === 2 ? from : { ...from, way });
  return { ...s, motion: { ...m, run } };
}

function same(a: StarterState, b: StarterState): boolean {
  for (const key in b)
    if (a[key as keyof StarterState] !== b[key as keyof StarterState]) return false;
  return true;
}

/** The command logic one moment on; the same object where nothing changed. */
export function stepStarter(
  core: StarterCore,
  before: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const edges = edgesOf(before.levels, inputs.levels);
  const { levels, rotation } = inputs;
  let s: StarterState =
    before.levels === levels && before.rotation === rotation
      ? before
      : { ...before, levels, rotation };
  s = watchControl(core, s, inputs, t);
  if (s.control === 'on') {
    s = watchTerminals(core, s, edges, t);
    s = watchFaults(core, s, inputs, t);
    s = watchReset(core, s, edges, inputs, t);
    s = phases(core, s, before, inputs, t);
    const m = s.motion;
    if (m.kind === 'start') s = starting(core, s, m, inputs, t);
    else if (m.kind === 'softStop' || m.kind === 'brake') s = slowing(core, s, m, inputs, t);
    if (s.motion.kind === 'off' || s.motion.kind === 'coast') s = standing(core, s, inputs, t);
  }
  return same(before, s) ? before : s;
}

/** Next moment at which the logic changes by itself. */
export function wakeStarter(core: StarterCore, s: StarterState, t: number): number {
  const { control } = core;
  const m = s.motion;
  const due: number[] = [];
  if (s.control === 'startingUp') due.push(s.readyUs);
  if (m.kind === 'start')
    due.push(m.run.kickUs, m.run.fullUs, m.run.bypassUs, m.run.tripUs, m.limitUs);
  if (m.kind === 'softStop' || m.kind === 'brake') due.push(m.endUs);
  if (m.kind === 'off' || m.kind === 'coast') {
    due.push(waitsUntil(control, s, 1), waitsUntil(control, s, -1));
    due.push(s.lineAskedUs + us(control.contactorMs / 1000));
  }
  if (control.onRunWithoutMains === 'faultAfter') due.push(s.missingUs + us(control.mainsMissingS));
  due.push(s.phaseUs + us(control.phaseLossMs / 1000), s.autoResetUs);
  if (s.fault === 'overload') due.push(coolUs(s.heat, 1));
  let next = Infinity;
  for (const at of due) if (at > t && at < next) next = at;
  return next;
}
