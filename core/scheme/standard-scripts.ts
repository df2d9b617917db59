import type { Act } from '../job/index.js';
import type { Arrangement, Direction } from './arrangement.js';

/** Act that gives a function of the station: the device is moved out of its rest. Undefined where the station has none. */
export function give(arrangement: Arrangement, operation: string, atMs: number): Act | undefined {
  const { device, position } = arrangement.operations[operation] ?? {};
  if (!device) return undefined;
  return position === undefined
    ? { do: 'press', atMs, device }
    : { do: 'turn', atMs, device, position };
}

/** Act that takes a function away: the device goes back to its rest. */
export function take(arrangement: Arrangement, operation: string, atMs: number): Act | undefined {
  const { device } = arrangement.operations[operation] ?? {};
  return device ? { do: 'release', atMs, device } : undefined;
}

/**
 * Operations that may give an input function, the likeliest first: its own, those of its device, else a start: a relay is
 * worked by the buttons at its coil.
 */
export function operationsOn(
  arrangement: Arrangement,
  input: { readonly id: string; readonly device: string },
): string[] {
  const own = arrangement.operations[input.id] ? [input.id] : [];
  const same = Object.keys(arrangement.operations).filter(
    (id) => arrangement.operations[id].device === input.device,
  );
  const starts = own.length + same.length === 0 ? Object.values(arrangement.starts) : [];
  return [...new Set([...own, ...same, ...starts])];
}

/** How long a button is held for a pulse, ms. */
export const PULSE_MS = 400;

/** Start in a direction: what stays, or the pulse. The direction is turned first where it has its own contact. */
export function startActs(arrangement: Arrangement, direction: Direction, atMs: number): Act[] {
  const start = arrangement.starts[direction];
  if (!start) return [];
  const turned = arrangement.direction
    ? (direction === 'reverse' ? give : take)(arrangement, arrangement.direction, atMs - 100)
    : undefined;
  const pulse =
    arrangement.givenBy === 'pulse' ? take(arrangement, start, atMs + PULSE_MS) : undefined;
  return actsOf(turned, give(arrangement, start, atMs), pulse);
}

/** Stop: what stays is let go, or the stop button of the first station is pressed for a moment. */
export function stopActs(
  arrangement: Arrangement,
  direction: Direction,
  atMs: number,
  station = 0,
): Act[] {
  if (arrangement.givenBy === 'pulse' && arrangement.stops[station]) {
    const stop = arrangement.stops[station];
    return actsOf(give(arrangement, stop, atMs), take(arrangement, stop, atMs + PULSE_MS));
  }
  return actsOf(take(arrangement, arrangement.starts[direction] ?? '', atMs));
}

/** Directions the station can ask for. */
export function directionsOf(arrangement: Arrangement): Direction[] {
  return (['forward', 'reverse'] as const).filter((d) => arrangement.starts[d] !== undefined);
}

/** When the drive is ready after the supply came on in every standard script, ms. */
export const READY_MS = 3000;

/** Acts that close a line contactor where there is one. */
export function powerOnActs(arrangement: Arrangement, atMs: number): Act[] {
  const { power } = arrangement;
  return power
    ? actsOf(give(arrangement, power.on, atMs), take(arrangement, power.on, atMs + 300))
    : [];
}

/**
 * Start of every standard script: supply on, a line contactor closed, then the dial or signal, with every run contact
 * open.
 *
 * @param dial position 0 … 1
 */
export function powerUp(arrangement: Arrangement, dial: number): Act[] {
  const acts: Act[] = [{ do: 'supplyOn', atMs: 0 }];
  if (arrangement.dial) acts.push({ do: 'dial', atMs: 100, device: arrangement.dial, to: dial });
  return [...acts, ...powerOnActs(arrangement, 200)];
}

/** The acts that are there; a function the station does not have gives none. */
export const actsOf = (...acts: (Act | undefined)[]): Act[] =>
  acts.filter((act) => act !== undefined);

/** A moment of a standard script at which what the motor does is looked at. */
export interface Moment {
  readonly atMs: number;
  /** What is asked there, as a code for words. */
  readonly what: string;
}

/** A script with its moments: what the behaviour cards, the sweep and the procedure share. */
export interface StandardScript {
  readonly acts: readonly Act[];
  readonly marks: readonly Moment[];
  readonly endMs: number;
}

const SETTLE_MS = 1500;

/**
 * The standard script of an arrangement: press and release, both together, direction flip under way, stop let go with
 * start held, emergency stop and its release, power cut and return with nothing let go. Parts the station cannot do are
 * left out.
 *
 * @param travelMs longest time between standstill and full speed
 * @returns acts in order of time, and a mark at each of them
 * @example standardScript(arrange(job), 5000).marks.map((m) => m.what) // ['start', 'stop', …]
 */
export function standardScript(arrangement: Arrangement, travelMs: number): StandardScript {
  const acts: Act[] = [...powerUp(arrangement, 1)];
  const marks: Moment[] = [];
  const step = travelMs + SETTLE_MS + arrangement.warningMs;
  let t = READY_MS;
  const part = (what: string, made: Act[], wait = step): void => {
    if (made.length === 0) return;
    acts.push(...made);
    marks.push({ atMs: t, what });
    t += wait;
  };
  const [first, second] = directionsOf(arrangement);
  const stop = (d: Direction): void => part('stop', stopActs(arrangement, d, t));
  if (first) {
    part('start', startActs(arrangement, first, t));
    stop(first);
  }
  if (first && second) flipParts(arrangement, first, second, part, () => t, stop, 2 * step);
  if (first && arrangement.givenBy === 'pulse') heldStartParts(arrangement, first, part, () => t);
  if (first && arrangement.estop) {
    part('start', startActs(arrangement, first, t));
    part('estop', actsOf(give(arrangement, arrangement.estop, t)));
    part('estopReleased', actsOf(take(arrangement, arrangement.estop, t)));
    if (arrangement.contactor) part('powerOn', powerOnActs(arrangement, t), step + 2000);
    stop(first);
  }
  if (first) {
    part('start', startActs(arrangement, first, t));
    part('powerOff', [{ do: 'supplyOff', atMs: t }], 60_000);
    part('powerReturns', [{ do: 'supplyOn', atMs: t }], step + 3000);
    if (arrangement.contactor) part('powerOn', powerOnActs(arrangement, t), step + 3000);
  }
  return { acts, marks, endMs: t };
}

type Part = (what: string, made: Act[], wait?: number) => void;

function flipParts(
  a: Arrangement,
  first: Direction,
  second: Direction,
  part: Part,
  now: () => number,
  stop: (d: Direction) => void,
  longer: number,
): void {
  part('start', startActs(a, first, now()));
  if (a.direction) {
    part('flip', actsOf(give(a, a.direction, now())), longer);
    stop(second);
    return part('flipBack', actsOf(take(a, a.direction, now())), 500);
  }
  if (a.givenBy === 'pulse') {
    part('otherStart', startActs(a, second, now()), longer);
    return stop(second);
  }
  const sameDevice =
    a.operations[a.starts[first] as string]?.device ===
    a.operations[a.starts[second] as string]?.device;
  part(sameDevice ? 'flip' : 'both', actsOf(give(a, a.starts[second] as string, now())), longer);
  if (!sameDevice) part('firstReleased', actsOf(take(a, a.starts[first] as string, now())));
  stop(second);
}

function heldStartParts(a: Arrangement, first: Direction, part: Part, now: () => number): void {
  const [start, stop] = [a.starts[first] as string, a.stops[0]];
  if (!stop) return;
  part('startHeld', actsOf(give(a, start, now())));
  part('stopPressed', actsOf(give(a, stop, now())));
  part('stopReleased', actsOf(take(a, stop, now())));
  part('startReleased', actsOf(take(a, start, now())), 500);
  part('stop', stopActs(a, first, now()));
}
