import type { Act } from '../job/index.js';
import type { Arrangement, Direction } from './arrangement.js';

/** Acts that give or take one function of the station, whatever kind of contact gives it. */
export function give(arrangement: Arrangement, functionId: string, atMs: number): Act | undefined {
  const f = arrangement.inputs.find((input) => input.id === functionId);
  if (!f) return undefined;
  const device = arrangement.devices.find((d) => d.id === f.device);
  if (device?.kind === 'selectorReverseOffForward') return { do: 'turn', atMs, device: f.device, position: f.task === 'reverse' ? 'reverse' : 'forward' };
  return { do: 'press', atMs, device: f.device };
}

export function take(arrangement: Arrangement, functionId: string, atMs: number): Act | undefined {
  const f = arrangement.inputs.find((input) => input.id === functionId);
  return f ? { do: 'release', atMs, device: f.device } : undefined;
}

/** How long a button is held for a pulse, ms. */
export const PULSE_MS = 400;

/** Start in a direction: the contact that stays closed, or the pulse. The direction is turned first where it has its own contact. */
export function startActs(arrangement: Arrangement, direction: Direction, atMs: number): Act[] {
  const start = arrangement.starts[direction];
  if (!start) return [];
  const turned = arrangement.direction ? (direction === 'reverse' ? give : take)(arrangement, arrangement.direction, atMs - 100) : undefined;
  const pulse = arrangement.givenBy === 'pulse' ? take(arrangement, start, atMs + PULSE_MS) : undefined;
  return actsOf(turned, give(arrangement, start, atMs), pulse);
}

/** Stop: the contact is let go, or the stop button is pressed for a moment. */
export function stopActs(arrangement: Arrangement, direction: Direction, atMs: number): Act[] {
  if (arrangement.givenBy === 'pulse' && arrangement.stop)
    return actsOf(give(arrangement, arrangement.stop, atMs), take(arrangement, arrangement.stop, atMs + PULSE_MS));
  return actsOf(take(arrangement, arrangement.starts[direction] ?? '', atMs));
}

/** Directions the station can ask for. */
export function directionsOf(arrangement: Arrangement): Direction[] {
  return (['forward', 'reverse'] as const).filter((d) => arrangement.starts[d] !== undefined);
}

/** When the drive is ready after the supply came on in every standard script, ms. */
export const READY_MS = 3000;

/**
 * Start of every standard script: supply on, then the dial, both with every run contact open.
 *
 * @param dial position 0 … 1
 */
export function powerUp(arrangement: Arrangement, dial: number): Act[] {
  const acts: Act[] = [{ do: 'supplyOn', atMs: 0 }];
  if (arrangement.dial) acts.push({ do: 'dial', atMs: 100, device: arrangement.dial, to: dial });
  return acts;
}

/** The acts that are there; a function the station does not have gives none. */
export const actsOf = (...acts: (Act | undefined)[]): Act[] => acts.filter((act) => act !== undefined);

/** Moments of the behaviour strip, ms: start, stop, start again, power cut and return. */
export const STRIP_MS = { start: 2000, stop: 12_000, again: 19_000, off: 27_000, on: 33_000, end: 44_000 } as const;

/** What the behaviour strip of a scheme shows: start, stop, start again, power cut and return with nothing let go. */
export function behaviourActs(arrangement: Arrangement): Act[] {
  const { start, stop, again, off, on } = STRIP_MS;
  return actsOf(
    ...powerUp(arrangement, 1),
    ...startActs(arrangement, 'forward', start),
    ...stopActs(arrangement, 'forward', stop),
    ...startActs(arrangement, 'forward', again),
    { do: 'supplyOff', atMs: off },
    { do: 'supplyOn', atMs: on },
  );
}
