import type { Act } from '../job/index.js';
import type { Arrangement } from './arrangement.js';

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
