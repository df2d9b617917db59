import type { Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { areaOf } from './conductors.js';
import { plateNumbers } from './plate/context.js';
import { copperOhm } from './voltage-drop.js';

/** How far windings may lie from what their plate lets expect, as a share. */
export const WINDING_SHARE = 0.4;

/**
 * Resistance between two motor terminals of a cold motor: of its losses a share s falls on the stator at rated current,
 * 3·I²·R/2 per pair, at a temperature at which copper has 1.29 times its resistance at 20 °C.
 *
 * @param watts losses at rated power
 * @param powerKw rated power: small motors lose more of it in the stator
 * @example windingOhm(2362, 37, 66.8) // 0.109
 */
export function windingOhm(watts: number, powerKw: number, amps: number): number {
  const share = powerKw <= 4 ? 0.5 : 0.4;
  return (2 * share * watts) / (3 * amps ** 2 * 1.29);
}

/**
 * What the plates let expect between two leads of the motor, and of the two cores of its cable.
 *
 * @returns Ω; undefined where the plate does not tell power, current and efficiency
 * @example expectedWindings(job, profile)?.pairOhm // 0.93
 */
export function expectedWindings(
  { plate, adopted }: Pick<Job, 'plate' | 'adopted'>,
  profile: Profile,
): { readonly pairOhm: number; readonly cableOhm: number } | undefined {
  const { powerKw, efficiency, rated } = plateNumbers(plate, profile);
  if (!powerKw || !efficiency || !rated?.amps) return undefined;
  // One phase's way to the motor, over whatever lies in it; the second ends of windings have a cable alike.
  const way = Object.values(adopted?.wires ?? {}).filter(
    (w) => w.class === 'motor' && /\.U1?$/u.test(w.function),
  );
  return {
    pairOhm: windingOhm((1000 * powerKw) / efficiency - 1000 * powerKw, powerKw, rated.amps),
    cableOhm: way.reduce((sum, w) => sum + 2 * copperOhm(w.lengthM, areaOf(w.size)), 0),
  };
}

/**
 * Resistance of one phase that a device measures of its motor, cable and all, star for delta: half of what lies between two leads.
 *
 * @returns Ω, least, nominal and most; undefined where the plate does not tell enough
 */
export function expectedPhaseOhm(
  job: Pick<Job, 'plate' | 'adopted'>,
  profile: Profile,
): { readonly least: number; readonly nominal: number; readonly most: number } | undefined {
  const known = expectedWindings(job, profile);
  if (!known) return undefined;
  const nominal = (known.pairOhm + known.cableOhm) / 2;
  return {
    least: nominal * (1 - WINDING_SHARE),
    nominal,
    most: nominal * (1 + WINDING_SHARE),
  };
}
