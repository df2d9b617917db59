/** Units of each quantity: factor to the first (base) unit, and offset where there is one. */
export const dimensions = {
  power: { kW: 1, W: 0.001, hp: 0.745699872 },
  voltage: { V: 1, kV: 1000, mV: 0.001 },
  current: { A: 1, mA: 0.001, kA: 1000 },
  frequency: { Hz: 1, kHz: 1000 },
  speed: { rpm: 1 },
  resistance: { Ω: 1, kΩ: 1000, MΩ: 1e6, mΩ: 0.001 },
  length: { m: 1, mm: 0.001, ft: 0.3048, in: 0.0254 },
  time: { s: 1, ms: 0.001, min: 60, h: 3600 },
  torque: { Nm: 1, 'lb·ft': 1.3558179483, 'lb·in': 0.112984829 },
  inertia: { 'kg·m²': 1, 'lb·ft²': 0.04214011 },
  apparentPower: { kVA: 1, VA: 0.001, MVA: 1000 },
  area: { 'm²': 1, 'ft²': 0.09290304 },
  temperature: { '°C': 1, '°F': 5 / 9 },
  ratio: { '%': 1 },
  number: { '': 1 },
} as const;

export type Dimension = keyof typeof dimensions;
export type UnitOf<D extends Dimension> = Extract<keyof (typeof dimensions)[D], string>;

/** A quantity in the unit it was typed in. */
export interface Quantity<U extends string = string> {
  readonly v: number;
  readonly u: U;
}

/**
 * Value of a quantity in the base unit of its dimension.
 *
 * Factors: NIST SP 811 (hp = 550 ft·lbf/s, lb·ft², lb·in, in, ft).
 * @throws RangeError when the unit does not belong to the dimension
 * @example toBase({ v: 15, u: 'hp' }, 'power') // 11.185… kW
 */
export function toBase(q: Quantity, dimension: Dimension): number {
  const factor = (dimensions[dimension] as Record<string, number>)[q.u];
  if (factor === undefined) throw new RangeError(`${q.u} is no unit of ${dimension}`);
  return dimension === 'temperature' && q.u === '°F' ? (q.v - 32) * factor : q.v * factor;
}

/** The units a quantity of this dimension may be typed in, the base unit first. */
export function unitsOf(dimension: Dimension): string[] {
  return Object.keys(dimensions[dimension]);
}

/** The dimension a unit belongs to; undefined for one that none has. */
export function dimensionOf(unit: string): Dimension | undefined {
  return (Object.keys(dimensions) as Dimension[]).find((d) => unit in dimensions[d]);
}

/**
 * A quantity in another unit of its dimension.
 *
 * @throws RangeError when either unit does not belong to the dimension
 * @example valueIn({ v: 565, u: 'mV' }, 'V', 'voltage') // 0.565
 */
export function valueIn(q: Quantity, unit: string, dimension: Dimension): number {
  if (q.u === unit) return q.v;
  const base = toBase(q, dimension);
  const one = toBase({ v: 1, u: unit }, dimension) - toBase({ v: 0, u: unit }, dimension);
  return (base - toBase({ v: 0, u: unit }, dimension)) / one;
}
