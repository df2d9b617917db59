import {
  anyDemand,
  commandPlace,
  isPulse,
  resolveCommand,
  type Refusal,
  type Command,
  type Edges,
} from './command.js';
import {
  coastFrom,
  isModulating,
  motionWake,
  outputHz,
  stepMotion,
  type ShaftNow,
} from './motion.js';
import { overvoltageUs } from './link-rise.js';
import { watchKeypad, watchKeypadSpeed, watchPot, watchTerminals } from './latches.js';
import { stepPower, type DcLink } from './power.js';
import {
  inputNames,
  restingLevels,
  type Control,
  type InputName,
  type Levels,
} from './vocabulary.js';
import type { DriveState, Fault, Motion } from './state.js';

/** What reaches the command logic from outside at one moment. */
export interface DriveInputs {
  readonly levels: Levels;
  readonly referenceHz: number;
  /** The live-zero signal is below its threshold. */
  readonly referenceLost?: boolean;
  /** One phase of the supply is missing. */
  readonly phaseMissing?: boolean;
  /** What the shaft does now; standing where it is not told. */
  readonly shaft?: ShaftNow;
}

const standing: ShaftNow = { hz: 0, turns: false };
const shaftOf = ({ shaft = standing }: DriveInputs): ShaftNow => shaft;

/** Inputs that bypass the filter: supplies and keys are not digital inputs. */
const unfiltered: ReadonlySet<InputName> = new Set([
  'keypadUp',
  'keypadDown',
  'mains',
  'controlSupply',
  'keypadStart',
  'keypadStop',
]);

/** State at t = 0 with inputs that have been steady for ever; `mains` = 1 means ready. */
export function initialDrive(control: Control, inputs: DriveInputs): DriveState {
  const levels: Levels = { ...restingLevels, ...inputs.levels };
  const alive = levels.mains === 1 || (control.controlSupplySeparate && levels.controlSupply === 1);
  const base: DriveState = {
    raw: levels,
    levels,
    pending: {},
    power: {
      logic: alive ? 'on' : 'off',
      readyUs: 0,
      linkLowUs: Infinity,
      linkUp: levels.mains === 1,
      logicDiesUs: Infinity,
    },
    fault: null,
    channelsCycled: false,
    discrepancyUs: Infinity,
    needFresh: false,
    latch: 0,
    keypadLatch: 0,
    carried: 0,
    firstDirection: levels.forward === levels.reverse ? 0 : levels.forward ? 1 : -1,
    stopReturnedUs: -Infinity,
    startEdgeUs: { forward: -Infinity, reverse: -Infinity },
    startsTogether: false,
    jogRefused: false,
    referenceHz: inputs.referenceHz,
    referenceLost: inputs.referenceLost ?? false,
    heldHz: inputs.referenceHz,
    potHz: control.minHz,
    potDueUs: Infinity,
    keypadHz: control.keypadHz ?? 0,
    keypadDueUs: Infinity,
    motion: { kind: 'off' },
  };
  const s = {
    ...base,
    needFresh:
      anyDemand(control, base) && (isPulse(control) || control.onPowerReturn === 'needFreshEdge'),
  };
  return stepDrive(control, undefined, s, inputs, 0);
}

/**
 * Takes the command logic to t with the inputs of that moment. Pure: the same object comes back if nothing changed.
 *
 * @param link energy of the DC link inside a rehearsal; undefined for the vocabulary's ride-through
 * @param t µs; not before the time of the last step
 */
export function stepDrive(
  control: Control,
  link: DcLink | undefined,
  before: DriveState,
  inputs: DriveInputs,
  t: number,
): DriveState {
  const filtered = filterInputs(control, before, inputs, t);
  const { edges } = filtered;
  let s = filtered.state;
  const power = stepPower(
    control,
    link,
    s.power,
    before.levels,
    s.levels,
    isModulating(s.motion) ? outputHz(s.motion, t) : 0,
    t,
  );
  if (power !== s.power)
    s = powerChanged(control, { ...s, power }, before.power.linkUp, before.power.logic, t);
  if (s.power.logic !== 'on') return s;
  s = watchPot(control, s, t);
  s = watchKeypadSpeed(control, s, t);
  s = watchFaults(control, s, edges, inputs, t);
  s = watchEnables(control, s, edges, t);
  s = watchKeypad(control, s, edges);
  s = watchTerminals(control, s, edges, outputBarred(s) !== null, t);
  if (s.needFresh && !anyDemand(control, s)) s = { ...s, needFresh: false };
  const motion = stepMotion(control, s, wanted(control, s), shaftOf(inputs), t);
  if (motion === 'overcurrent') return trip(s, 'overcurrent', t);
  return motion === s.motion ? s : { ...s, motion: withTrip(link, motion) };
}

/** A ramp just planned, with the moment at which the DC link would trip on it. */
function withTrip(link: DcLink | undefined, motion: Motion): Motion {
  if (motion.kind !== 'ramp' || !link?.braking) return motion;
  const tripUs = overvoltageUs(link.braking, motion.ramp);
  return tripUs === Infinity ? motion : { ...motion, tripUs };
}

/** Command in force, and the reason for which a demand is not followed. */
export function wanted(control: Control, s: DriveState): Command {
  return resolveCommand(control, s, outputBarred(s));
}

/** Next moment after t at which the command logic changes by itself. */
export function wakeDrive(s: DriveState, t: number): number {
  const { power } = s;
  const times = [
    motionWake(s.motion, t),
    power.logicDiesUs,
    s.discrepancyUs,
    s.potDueUs,
    s.keypadDueUs,
    ...Object.values(s.pending),
  ];
  if (power.logic === 'poweringUp') times.push(power.readyUs);
  if (power.linkUp) times.push(power.linkLowUs);
  return times.reduce((next, time) => (time > t && time < next ? time : next), Infinity);
}

function outputBarred(s: DriveState): Refusal | null {
  if (!s.power.linkUp) return 'noMains';
  if (s.levels.enableA === 0 || s.levels.enableB === 0) return 'enableOpen';
  return s.levels.outputInhibit || s.levels.quickStop || s.fault ? 'inhibited' : null;
}

function filterInputs(
  control: Control,
  s: DriveState,
  inputs: DriveInputs,
  t: number,
): { state: DriveState; edges: Edges } {
  const referenceLost = inputs.referenceLost ?? false;
  const sameReference = inputs.referenceHz === s.referenceHz && referenceLost === s.referenceLost;
  if (inputs.levels === s.raw && sameReference && Object.keys(s.pending).length === 0)
    return { state: s, edges: {} };
  const filterUs = Math.round(control.filterMs * 1000);
  let { levels, pending } = s;
  const edges: Partial<Record<InputName, 'rise' | 'fall'>> = {};
  for (const name of openInputs(s, inputs.levels)) {
    const now = inputs.levels[name];
    if (now === levels[name] && pending[name] === undefined) continue;
    if (now === levels[name]) {
      if (pending[name] !== undefined) pending = { ...pending, [name]: undefined };
      continue;
    }
    const due = unfiltered.has(name)
      ? t
      : s.raw[name] === now && pending[name] !== undefined
        ? pending[name]
        : t + filterUs;
    if (due <= t) {
      levels = { ...levels, [name]: now };
      edges[name] = now ? 'rise' : 'fall';
      if (pending[name] !== undefined) pending = { ...pending, [name]: undefined };
    } else if (pending[name] !== due) pending = { ...pending, [name]: due };
  }
  const unchanged =
    levels === s.levels && pending === s.pending && inputs.levels === s.raw && sameReference;
  if (unchanged) return { state: s, edges };
  const kept = Object.fromEntries(Object.entries(pending).filter(([, due]) => due !== undefined));
  const heldHz = referenceLost ? s.heldHz : inputs.referenceHz;
  return {
    state: {
      ...s,
      raw: inputs.levels,
      levels,
      pending: kept,
      referenceHz: inputs.referenceHz,
      referenceLost,
      heldHz,
    },
    edges,
  };
}

/** Inputs at which anything is to be done: what came in the same as before and waits for no filter is as it was. */
function openInputs({ raw, pending }: DriveState, levels: Levels): InputName[] {
  const waiting = Object.keys(pending) as InputName[];
  if (levels === raw) return waiting;
  return inputNames.filter((name) => levels[name] !== raw[name] || waiting.includes(name));
}

function powerChanged(
  control: Control,
  s: DriveState,
  hadLink: boolean,
  hadLogic: DriveState['power']['logic'],
  t: number,
): DriveState {
  if (hadLink && !s.power.linkUp && s.power.logic === 'on') s = linkLost(control, s, t);
  if (s.power.logic === 'off' && hadLogic !== 'off') {
    return {
      ...s,
      fault: outlives(control, s.fault) ? s.fault : null,
      latch: 0,
      keypadLatch: 0,
      carried: 0,
      needFresh: false,
      discrepancyUs: Infinity,
      potHz: control.keepOnPowerOff ? s.potHz : control.minHz,
      potDueUs: Infinity,
      keypadHz: control.keepOnPowerOff ? s.keypadHz : (control.keypadHz ?? 0),
      keypadDueUs: Infinity,
      motion: coastFrom(s.motion, t),
    };
  }
  if (s.power.logic === 'on' && hadLogic !== 'on') {
    const barred = isPulse(control) || control.onPowerReturn === 'needFreshEdge';
    return {
      ...s,
      latch: 0,
      keypadLatch: 0,
      carried: 0,
      needFresh: barred && anyDemand(control, s),
    };
  }
  return s;
}

/** Faults of the supply itself go with it, and so does that of two channels: the others stay where a device keeps them. */
const outlives = (control: Control, fault: DriveState['fault']): boolean =>
  control.faultMemoryOff === 'kept' &&
  fault !== 'undervoltage' &&
  fault !== 'inputPhaseLoss' &&
  fault !== 'enableDiscrepancy';

function linkLost(control: Control, s: DriveState, t: number): DriveState {
  if (!isModulating(s.motion)) return { ...s, latch: 0, keypadLatch: 0, carried: 0 };
  const stopping =
    s.motion.kind === 'dc' || (s.motion.kind === 'ramp' && s.motion.purpose === 'stop');
  if (stopping && control.onUndervoltageWhileStopping === 'coast')
    return { ...s, motion: coastFrom(s.motion, t) };
  return trip(s, 'undervoltage', t);
}

function trip(s: DriveState, fault: Fault, t: number): DriveState {
  return {
    ...s,
    fault,
    channelsCycled: false,
    latch: 0,
    keypadLatch: 0,
    carried: 0,
    motion: coastFrom(s.motion, t),
  };
}

function watchFaults(
  control: Control,
  s: DriveState,
  edges: Edges,
  inputs: DriveInputs,
  t: number,
): DriveState {
  const { levels: l } = s;
  if (l.enableA === l.enableB)
    s = s.discrepancyUs === Infinity ? s : { ...s, discrepancyUs: Infinity };
  else if (s.discrepancyUs === Infinity && s.fault !== 'enableDiscrepancy')
    s = { ...s, discrepancyUs: t + Math.round(control.channelDiscrepancyMs * 1000) };
  if (s.fault === 'enableDiscrepancy' && !l.enableA && !l.enableB && !s.channelsCycled)
    s = { ...s, channelsCycled: true };
  if (s.fault) return clearFault(control, s, edges);
  if (t >= s.discrepancyUs) return trip({ ...s, discrepancyUs: Infinity }, 'enableDiscrepancy', t);
  if (l.externalFault) return trip(s, 'externalFault', t);
  if (s.motion.kind === 'ramp' && t >= (s.motion.tripUs ?? Infinity))
    return trip(s, 'overvoltage', t);
  if (inputs.phaseMissing && isModulating(s.motion)) return trip(s, 'inputPhaseLoss', t);
  if (s.referenceLost && control.onReferenceLoss === 'fault') return trip(s, 'referenceLoss', t);
  const both =
    control.startMethod === 'levelForwardReverse' &&
    l.forward &&
    l.reverse &&
    commandPlace(control, l) === 'terminals';
  if (both && control.onBothDirections === 'fault') return trip(s, 'bothDirections', t);
  return s;
}

function clearFault(control: Control, s: DriveState, edges: Edges): DriveState {
  const { levels: l } = s;
  const bothOpen = !l.forward && !l.reverse;
  const enabled = l.enableA === 1 && l.enableB === 1;
  const selfClears =
    (s.fault === 'bothDirections' && bothOpen && control.bothDirectionsFaultSelfClears) ||
    (s.fault === 'enableDiscrepancy' && s.channelsCycled && enabled);
  const causeGone =
    (s.fault !== 'externalFault' || !l.externalFault) &&
    (s.fault !== 'bothDirections' || bothOpen) &&
    (s.fault !== 'enableDiscrepancy' || enabled) &&
    (s.fault !== 'referenceLoss' || !s.referenceLost);
  if (!selfClears && !(edges.reset === 'rise' && causeGone)) return s;
  return {
    ...s,
    fault: null,
    needFresh:
      anyDemand(control, s) && (isPulse(control) || control.onFaultReset === 'needFreshEdge'),
  };
}

function watchEnables(control: Control, s: DriveState, edges: Edges, t: number): DriveState {
  const barred = outputBarred(s);
  if (barred === 'enableOpen' || s.levels.outputInhibit) {
    const motion: Motion = isModulating(s.motion) ? coastFrom(s.motion, t) : s.motion;
    const idle = !s.latch && !s.keypadLatch && !s.carried && motion === s.motion;
    return idle ? s : { ...s, latch: 0, keypadLatch: 0, carried: 0, motion };
  }
  if (s.levels.quickStop)
    return s.latch || s.keypadLatch || s.carried
      ? { ...s, latch: 0, keypadLatch: 0, carried: 0 }
      : s;
  const returned =
    edges.enableA === 'rise' ||
    edges.enableB === 'rise' ||
    edges.outputInhibit === 'fall' ||
    edges.quickStop === 'fall';
  if (
    returned &&
    anyDemand(control, s) &&
    (isPulse(control) || control.onEnableReturn === 'needFreshEdge')
  )
    return { ...s, needFresh: true };
  return s;
}
