import { commandPlace, isPulse, isRunning, terminalDemand, type Edges } from './command.js';
import type { Direction, DriveState } from './state.js';
import type { Control } from './vocabulary.js';

/** Keys of the keypad and changes of place between keypad and terminals. */
export function watchKeypad(control: Control, s: DriveState, edges: Edges): DriveState {
  if (edges.local && control.commandSource !== 'keypad')
    s = changePlace(control, s, edges.local === 'rise');
  const keypad = commandPlace(control, s.levels) === 'keypad';
  const stopped = s.levels.stop === 0 && control.terminalStopUnderKeypad === 'acts';
  if (keypad && stopped && (s.keypadLatch || s.carried)) s = { ...s, keypadLatch: 0, carried: 0 };
  const allowed =
    keypad &&
    !stopped &&
    !s.fault &&
    s.levels.enableA === 1 &&
    s.levels.enableB === 1 &&
    !s.levels.outputInhibit;
  if (edges.keypadStart === 'rise' && allowed) s = { ...s, keypadLatch: 1, needFresh: false };
  if (edges.keypadStop === 'rise') {
    s = { ...s, keypadLatch: 0 };
    if (keypad) s = { ...s, carried: 0 };
    else if (control.keypadStopAlways)
      s = { ...s, latch: 0, carried: 0, needFresh: terminalDemand(control, s.levels) };
  }
  return s;
}

function changePlace(control: Control, s: DriveState, toKeypad: boolean): DriveState {
  const running = isRunning(s);
  const direction =
    running && s.motion.kind !== 'off' && 'goalHz' in s.motion
      ? (Math.sign(s.motion.goalHz) as Direction)
      : 0;
  const cleared = { ...s, latch: 0, keypadLatch: 0, carried: 0 } as const;
  if (running && control.onPlaceChange === 'keepRunning') {
    if (toKeypad) return { ...cleared, keypadLatch: direction };
    return {
      ...cleared,
      carried: terminalDemand(control, s.levels) && !isPulse(control) ? 0 : direction,
    };
  }
  if (toKeypad) return { ...cleared, needFresh: false };
  const held = terminalDemand(control, s.levels);
  const follows =
    !isPulse(control) &&
    (running ? control.onPlaceChange === 'follow' : control.onTakeover === 'followLevel');
  return { ...cleared, needFresh: held && !follows };
}

/**
 * Start, stop, direction and jog inputs of the terminals. Stop dominates: while it is open a start edge is lost.
 *
 * @param barred an enable, an inhibit, a fault or the link forbids any start: its edge is lost
 */
export function watchTerminals(
  control: Control,
  s: DriveState,
  edges: Edges,
  barred: boolean,
  t: number,
): DriveState {
  s = watchDirections(s);
  if (edges.jogForward || edges.jogReverse || s.jogRefused) s = watchJog(control, s, edges);
  const runEdge =
    edges.forward ||
    edges.reverse ||
    edges.run ||
    edges.start ||
    edges.startForward ||
    edges.startReverse;
  if (s.carried !== 0 && runEdge && commandPlace(control, s.levels) === 'terminals')
    s = { ...s, carried: 0 };
  if (edges.stop === 'fall') s = { ...s, latch: 0, carried: 0 };
  if (edges.stop === 'rise') s = stopReturned(control, { ...s, stopReturnedUs: t }, edges);
  return isPulse(control) ? watchStarts(control, s, edges, barred, t) : s;
}

function watchDirections(s: DriveState): DriveState {
  const { forward, reverse } = s.levels;
  const first: Direction =
    forward === reverse ? (forward ? s.firstDirection : 0) : forward ? 1 : -1;
  return first === s.firstDirection ? s : { ...s, firstDirection: first };
}

function watchJog(control: Control, s: DriveState, edges: Edges): DriveState {
  if (!s.levels.jogForward && !s.levels.jogReverse)
    return s.jogRefused ? { ...s, jogRefused: false } : s;
  const pressed = edges.jogForward === 'rise' || edges.jogReverse === 'rise';
  return pressed && isRunning(s) && control.jogWhileRunning === 'ignored' && !s.jogRefused
    ? { ...s, jogRefused: true }
    : s;
}

function stopReturned(control: Control, s: DriveState, edges: Edges): DriveState {
  const { start, startForward, startReverse } = s.levels;
  if (!isPulse(control))
    return terminalDemand(control, s.levels) && control.onStartHeld === 'needFreshEdge'
      ? { ...s, needFresh: true }
      : s;
  const fresh =
    edges.start === 'rise' || edges.startForward === 'rise' || edges.startReverse === 'rise';
  if (fresh || !(start || startForward || startReverse)) return s;
  if (control.onStartHeld === 'needFreshEdge' || (startForward && startReverse))
    return { ...s, needFresh: true };
  return {
    ...s,
    latch: startReverse && control.startMethod === 'pulseForwardReverseStop' ? -1 : 1,
  };
}

function watchStarts(
  control: Control,
  s: DriveState,
  edges: Edges,
  barred: boolean,
  t: number,
): DriveState {
  const filterUs = Math.round(control.filterMs * 1000);
  const twoStarts = control.startMethod === 'pulseForwardReverseStop';
  const forward = twoStarts ? edges.startForward === 'rise' : edges.start === 'rise';
  const reverse = twoStarts && edges.startReverse === 'rise';
  if (s.startsTogether && !s.levels.startForward && !s.levels.startReverse)
    s = { ...s, startsTogether: false };
  if (!forward && !reverse) return s;
  const last = s.startEdgeUs;
  s = {
    ...s,
    startEdgeUs: { forward: forward ? t : last.forward, reverse: reverse ? t : last.reverse },
  };
  const together =
    (forward && reverse) ||
    (forward && (t - last.reverse <= filterUs || s.pending.startReverse !== undefined)) ||
    (reverse && (t - last.forward <= filterUs || s.pending.startForward !== undefined));
  if (twoStarts && together) return { ...s, startsTogether: true, latch: 0 };
  if (
    s.levels.stop === 0 ||
    barred ||
    s.needFresh ||
    commandPlace(control, s.levels) !== 'terminals'
  )
    return s;
  if (t - s.stopReturnedUs <= filterUs && control.startEdgeWithStopReturn === 'lost')
    return { ...s, needFresh: true };
  const direction: Direction = reverse ? -1 : 1;
  if (direction < 0 && control.noReverse) return s;
  if (s.latch === -direction && isRunning(s) && control.onOppositeStart === 'ignoreUntilStopped')
    return s;
  return { ...s, latch: direction };
}

/** Step by which the up and down inputs move their reference, Hz: fine enough to look like a turning potentiometer. */
const POT_STEP_HZ = 0.1;
/** Rate where the settings give none, Hz/s. */
const POT_HZ_PER_S = 5;

/** A frequency that up and down keys or inputs move step by step, between the lowest and the highest. */
function moved(
  control: Control,
  way: number,
  { hz, dueUs }: { hz: number; dueUs: number },
  t: number,
): { hz: number; dueUs: number } {
  if (way === 0) return { hz, dueUs: Infinity };
  const every = Math.round((POT_STEP_HZ / (control.motorPotHzPerS ?? POT_HZ_PER_S)) * 1e6);
  if (dueUs === Infinity) return { hz, dueUs: t + every };
  if (t < dueUs) return { hz, dueUs };
  const there = Math.round((hz + way * POT_STEP_HZ) * 1e6) / 1e6;
  const next = Math.min(Math.max(there, control.minHz), control.maxHz);
  return { hz: next, dueUs: next === hz ? t + 1_000_000 : t + every };
}

/** Moves the reference of the up and down inputs. */
export function watchPot(control: Control, s: DriveState, t: number): DriveState {
  const way = control.referenceSource === 'motorPot' ? s.levels.up - s.levels.down : 0;
  const { hz, dueUs } = moved(control, way, { hz: s.potHz, dueUs: s.potDueUs }, t);
  return hz === s.potHz && dueUs === s.potDueUs ? s : { ...s, potHz: hz, potDueUs: dueUs };
}

/** Moves the keypad's own frequency by its up and down keys. */
export function watchKeypadSpeed(control: Control, s: DriveState, t: number): DriveState {
  const way = control.keypadHz === undefined ? 0 : s.levels.keypadUp - s.levels.keypadDown;
  const { hz, dueUs } = moved(control, way, { hz: s.keypadHz, dueUs: s.keypadDueUs }, t);
  return hz === s.keypadHz && dueUs === s.keypadDueUs
    ? s
    : { ...s, keypadHz: hz, keypadDueUs: dueUs };
}
