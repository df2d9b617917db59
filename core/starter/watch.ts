import { imageTau, REST_FACTOR } from '../motor/index.js';
import { findsShort, shortSeenUs } from './broken.js';
import { barredBy, levelAsked, supplySeen } from './command.js';
import { us, type StarterCore, type StarterInputs } from './core.js';
import { heatAt } from './heat.js';
import { fail, interrupted, turning, unfed } from './let-go.js';
import type { Direction, StarterState } from './state.js';
import type { StarterControl, StarterInput, StarterLevels } from './vocabulary.js';

/** Control supply: without it the motor is unfed at once, latch and waiting run are lost. */
export function watchControl(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const fed = s.levels.controlSupply === 1;
  if (!fed) {
    if (s.control === 'off') return s;
    const at = s.motion.kind === 'unasked' ? s : unfed(core, s, turning(inputs), t);
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

export type Edges = Readonly<Partial<Record<StarterInput, 'rise' | 'fall'>>>;

/** Inputs that have changed, and which way. */
export function edgesOf(before: StarterLevels, now: StarterLevels): Edges {
  const edges: Partial<Record<StarterInput, 'rise' | 'fall'>> = {};
  for (const name in now) {
    const key = name as StarterInput;
    if (before[key] !== now[key]) edges[key] = now[key] ? 'rise' : 'fall';
  }
  return edges;
}

/** Start, stop and directions at the terminals. */
export function watchTerminals(
  core: StarterCore,
  s: StarterState,
  edges: Edges,
  t: number,
): StarterState {
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

/** A pole that does not fire is missed until the bypass has closed. */
const deadPole = ({ broken }: StarterCore, { motion: m }: StarterState, t: number): boolean =>
  broken !== undefined && broken.dead > 0 && (m.kind !== 'start' || t < m.run.bypassUs);

/** Faults that come from outside, and both directions together. */
export function watchFaults(
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
  if (t >= shortSeenUs(s)) s = fail(core, s, 'shortedPole', inputs, t);
  if (s.motion.kind === 'unasked' && t >= s.motion.run.tripUs)
    s = fail(core, s, 'overload', inputs, t);
  const fedOrAsked = s.motion.kind === 'start' || s.motion.kind === 'softStop';
  const missing = seen === 1 || (seen === 2 && deadPole(core, s, t));
  const since = missing && fedOrAsked ? Math.min(s.phaseUs, t) : Infinity;
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
    case 'shortedPole':
      return !findsShort(core);
    case 'phaseSequence':
      return inputs.rotation > 0;
    default:
      return true;
  }
}

/** A fault whose cause is gone is reset by an edge, by cooling, or by itself after its time. */
export function watchReset(
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
