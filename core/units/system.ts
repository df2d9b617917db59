import { dimensions, type Dimension } from './dimensions.js';

/** Units a person reads in: those of the SI with their companions, or those customary in the United States. */
export type UnitSystem = 'metric' | 'us';

/** Units that have a customary counterpart, with the dimension that holds the factor. Plate units (kW, V, A, Hz) are the same in both. */
const counterparts: Readonly<
  Record<string, { readonly dimension: Dimension; readonly us: string }>
> = {
  'Nm': { dimension: 'torque', us: 'lb·ft' },
  'N·m': { dimension: 'torque', us: 'lb·ft' },
  'kg·m²': { dimension: 'inertia', us: 'lb·ft²' },
  'm': { dimension: 'length', us: 'ft' },
  'mm': { dimension: 'length', us: 'in' },
  'm²': { dimension: 'area', us: 'ft²' },
  '°C': { dimension: 'temperature', us: '°F' },
};

/** The unit in which a person of this system reads and types what is reckoned in `unit`. */
export function unitIn(unit: string, system: UnitSystem): string {
  return system === 'us' ? (counterparts[unit]?.us ?? unit) : unit;
}

/**
 * A reckoned value as a person of this system reads it. What was typed comes back as typed and never goes through here.
 *
 * Factors: NIST SP 811, as in `dimensions`.
 * @example inSystem(20, '°C', 'us') // { value: 68, unit: '°F' }
 */
export function inSystem(
  value: number,
  unit: string,
  system: UnitSystem,
): { value: number; unit: string } {
  const pair = system === 'us' ? counterparts[unit] : undefined;
  if (!pair) return { value, unit };
  const factors = dimensions[pair.dimension] as Record<string, number>;
  const base = value * (factors[unit] ?? 1);
  const offset = pair.us === '°F' ? 32 : 0;
  return { value: base / factors[pair.us] + offset, unit: pair.us };
}
