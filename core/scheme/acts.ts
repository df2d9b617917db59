import type { Act } from '../job/index.js';
import type { Arrangement, Direction, OperationId } from './arrangement.js';

/** Act that gives a function of the station: the device is moved out of its rest. Undefined where the station has none. */
export function give(
  arrangement: Arrangement,
  operation: OperationId | undefined,
  atMs: number,
): Act | undefined {
  const { device, position } = (operation && arrangement.operations[operation]) ?? {};
  if (!device) return undefined;
  return position === undefined
    ? { do: 'press', atMs, device }
    : { do: 'turn', atMs, device, position };
}

/** Act that takes a function away: the device goes back to its rest. */
export function take(
  arrangement: Arrangement,
  operation: OperationId | undefined,
  atMs: number,
): Act | undefined {
  const { device } = (operation && arrangement.operations[operation]) ?? {};
  return device ? { do: 'release', atMs, device } : undefined;
}

/**
 * Operations that may give an input function, the likeliest first: its own, those of its device, else a start: a relay is
 * worked by the buttons at its coil.
 */
export function operationsOn(
  arrangement: Arrangement,
  input: { readonly id: string; readonly device: string },
): OperationId[] {
  const ids = Object.keys(arrangement.operations) as OperationId[];
  const own = ids.filter((id) => id === input.id);
  const same = ids.filter((id) => arrangement.operations[id]?.device === input.device);
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
  return actsOf(take(arrangement, arrangement.starts[direction], atMs));
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
