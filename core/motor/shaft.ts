import { inert, type Device } from '../circuit/index.js';
import { pathStretch, steady, stretchValue, type Path, type Stretch } from '../numeric/index.js';
import type { OutputDemand } from './logic.js';
import { runDownPath, runDownTable, type RunDown } from './run-down.js';

/** What turns: the rotor and everything it drives, referred to the output frequency in Hz. */
export interface InstalledShaft {
  readonly kind: 'shaft';
  /** Device id of the motor. */
  readonly id: string;
  readonly tag: string;
  /** Device whose output drives it. */
  readonly drivenBy: string;
  /** Device id of a brake that a spring closes, where the job has one. */
  readonly brake: string | undefined;
  /** Device id of an isolator in its leads, where the job has one. */
  readonly isolator: string | undefined;
  /** Way in which its output turns it: −1 the other way, 0 not at all, with a lead missing. */
  readonly turns: 1 | -1 | 0;
  readonly polePairs: number | undefined;
  /** Fall of the speed under the load of the plate, rpm. */
  readonly slipRpm: number;
  /** How the free shaft slows down; undefined where inertia or load are not entered. */
  readonly runDown: RunDown | undefined;
  /** Time in which it is taken to run down from the highest frequency where that is not known, s. */
  readonly assumedS: number;
  readonly maxHz: number;
}

export const shaftStates = [
  'still',
  'driven',
  'runsDown',
  'runsDownUnknown',
  'rollsBack',
  'braking',
  'held',
] as const;
export type ShaftStateName = (typeof shaftStates)[number];

export interface ShaftState {
  readonly name: ShaftStateName;
  /** Speed as Hz along its way, negative in reverse. */
  readonly path: Path;
}

const NOWHERE: Path = { stretches: [steady(0, 0)], endUs: 0, rest: 0 };
const still: ShaftState = { name: 'still', path: NOWHERE };

/** Speed of the shaft at t, as Hz. */
export const shaftHz = (s: ShaftState, t: number): number =>
  stretchValue(pathStretch(s.path, t), t);

/** Speed of the shaft at t as a stretch. */
export const shaftStretch = (s: ShaftState, t: number): Stretch => pathStretch(s.path, t);

/** Whether it turns without being driven. */
export const turnsFreely = ({ name }: ShaftState): boolean =>
  name !== 'still' && name !== 'driven' && name !== 'held';

/**
 * Speed of the shaft in rpm for a speed in Hz.
 *
 * @returns undefined where the pole pairs are not known
 * @example shaftRpm({ …, polePairs: 2, slipRpm: 40 }, 'driven', 50) // 1460
 */
export function shaftRpm(
  d: Pick<InstalledShaft, 'polePairs' | 'slipRpm'>,
  name: ShaftStateName,
  hz: number,
): number | undefined {
  if (d.polePairs === undefined) return undefined;
  const synchronous = (60 * hz) / d.polePairs;
  const slip = name === 'driven' ? Math.min(Math.abs(synchronous), d.slipRpm) : 0;
  return synchronous - Math.sign(hz) * slip;
}

/** What the shaft needs to know of others, read from their states. */
export interface ShaftSources {
  demand(device: unknown, t: number): OutputDemand;
  /** Whether a brake lets the shaft turn. */
  brakeOpen(brake: unknown): boolean;
  /** Whether an isolator lets its current through. */
  isolatorClosed(isolator: unknown): boolean;
}

/**
 * The shaft: driven it follows the output, free it runs down by inertia and load, under an overhauling load it rolls back
 * until a brake holds it. Its way is planned in stretches when something changes, so that no piece needs a wake.
 */
export function shaftBehaviour(d: InstalledShaft, from: ShaftSources): Device<ShaftState> {
  const of = { kind: 'device', id: d.id } as const;
  const table = d.runDown && runDownTable(d.runDown, 2 * d.maxHz);
  const plan = (s: ShaftState, t: number, output: OutputDemand, open: boolean): ShaftState => {
    if (output.kind === 'frequency' || output.kind === 'voltage') {
      // A drive does not turn a closed brake; a shaft that turns is slowed by it.
      if (d.turns === 0) return open ? free(d, table, s, t) : held(s);
      if (open) return driven(s, d.turns === 1 ? output.path : turnedPath(output.path));
      return shaftHz(s, t) === 0 ? held(s) : braked(d, s, t);
    }
    if (output.kind === 'directCurrent') return driven(s, output.path);
    if (!open) return shaftHz(s, t) === 0 ? held(s) : braked(d, s, t);
    return free(d, table, s, t);
  };
  return {
    ...inert,
    id: d.id,
    listens: [d.drivenBy, d.brake, d.isolator].filter((id) => id !== undefined),
    signals: [
      { id: 'shaft.hz', of, unit: 'Hz', kind: 'value' },
      { id: 'shaft.state', of, unit: '', kind: 'state', states: shaftStates },
    ],
    init: () => still,
    act: (s) => s,
    stamp: () => undefined,
    step: (s, _sensed, t, peers) =>
      plan(
        ended(s, t),
        t,
        d.isolator === undefined || from.isolatorClosed(peers(d.isolator))
          ? from.demand(peers(d.drivenBy), t)
          : { kind: 'off' },
        d.brake === undefined || from.brakeOpen(peers(d.brake)),
      ),
    wake: (s, t) => nextBreak(s, t),
    observe: (s, t) => [shaftStretch(s, t), steady(shaftStates.indexOf(s.name), t)],
    rested: (s, t) => {
      const { path } = s;
      if (path.rest === undefined || t < path.endUs || path.endUs === 0) return s;
      return { ...s, path: { stretches: [steady(path.rest, 0)], endUs: 0, rest: path.rest } };
    },
  };
}

/** Driven along a path, its breaks are the drive's own; free, it is to be looked at when it comes to rest. */
function nextBreak({ name, path }: ShaftState, t: number): number {
  if (name === 'driven' || name === 'rollsBack') {
    for (const s of path.stretches) if (s.t0 > t) return s.t0;
  }
  return path.endUs > t ? path.endUs : Infinity;
}

const driven = (s: ShaftState, path: Path): ShaftState =>
  s.name === 'driven' && s.path === path ? s : { name: 'driven', path };

const held = (s: ShaftState): ShaftState =>
  s.name === 'held' ? s : { name: 'held', path: NOWHERE };

/** A way that is over has come to what it ends in. */
function ended(s: ShaftState, t: number): ShaftState {
  if (s.name === 'driven' || s.path.rest === undefined || t < s.path.endUs) return s;
  if (s.name === 'braking') return { name: 'held', path: NOWHERE };
  if (s.name === 'runsDown') return still;
  if (s.name === 'runsDownUnknown' && s.path.endUs !== 0) return { ...s, path: NOWHERE };
  return s;
}

const turnedPaths = new WeakMap<Path, Path>();

/** A path the other way round; the same object for the same path. */
function turnedPath(path: Path): Path {
  const known = turnedPaths.get(path);
  if (known) return known;
  const made: Path = {
    ...path,
    stretches: path.stretches.map((s) => ({ ...s, y: -s.y, dy: -s.dy, ddy: -s.ddy })),
    ...(path.rest === undefined ? {} : { rest: -path.rest }),
  };
  turnedPaths.set(path, made);
  return made;
}

/** The output is off and no brake holds: it runs down, or the load turns it. */
function free(
  d: InstalledShaft,
  table: ReturnType<typeof runDownTable> | undefined,
  s: ShaftState,
  t: number,
): ShaftState {
  if (s.name === 'runsDown' || s.name === 'runsDownUnknown' || s.name === 'rollsBack') return s;
  const hz = shaftHz(s, t);
  if (s.name === 'still') return s;
  const pull = d.runDown?.pullHzPerS ?? 0;
  if (pull > 0) {
    // What was driven or held is let go; a shaft that nobody has moved yet stands.
    return { name: 'rollsBack', path: rollBackPath(d.runDown as RunDown, hz, d.maxHz, t) };
  }
  if (hz === 0) return still;
  if (!table) {
    const endUs = t + Math.max(1, Math.round(d.assumedS * (Math.abs(hz) / d.maxHz) * 1e6));
    const fall = (-hz / (endUs - t)) * 1e6;
    return {
      name: 'runsDownUnknown',
      path: { stretches: [{ t0: t, y: hz, dy: fall, ddy: 0 }], endUs, rest: 0 },
    };
  }
  return { name: 'runsDown', path: runDownPath(table, hz, t) };
}

/** Speed at which a load that turns the shaft is taken to be held by its own losses: twice the highest. */
const RUNAWAY = 2;

/** Up to rest by the load's own torque, then the other way by its pull. */
function rollBackPath(
  { baseHzPerS, pullHzPerS }: RunDown,
  hz: number,
  maxHz: number,
  t: number,
): Path {
  const stretches: Stretch[] = [];
  let at = t;
  if (hz > 0) {
    stretches.push({ t0: at, y: hz, dy: -baseHzPerS, ddy: 0 });
    at += Math.max(1, Math.round((hz / baseHzPerS) * 1e6));
  }
  const from = Math.min(hz, 0);
  const most = -RUNAWAY * maxHz;
  stretches.push({ t0: at, y: from, dy: -pullHzPerS, ddy: 0 });
  const endUs = at + Math.max(1, Math.round(((from - most) / pullHzPerS) * 1e6));
  return { stretches, endUs, rest: most };
}

/** A brake that has closed on a turning shaft. */
function braked(d: InstalledShaft, s: ShaftState, t: number): ShaftState {
  if (s.name === 'braking') return s;
  const hz = shaftHz(s, t);
  const fall = d.runDown?.brakeHzPerS ?? d.maxHz / BRAKE_UNKNOWN_S;
  const endUs = t + Math.max(1, Math.round((Math.abs(hz) / fall) * 1e6));
  const stretch = { t0: t, y: hz, dy: (-hz / (endUs - t)) * 1e6, ddy: 0 };
  return { name: 'braking', path: { stretches: [stretch], endUs, rest: 0 } };
}

/** Time in which a brake of unknown torque is taken to stop the shaft from the highest frequency, s. */
const BRAKE_UNKNOWN_S = 0.5;
