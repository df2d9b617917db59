import * as v from 'valibot';
import { unitsOf, type Dimension, type UnitOf } from '../units/index.js';

/** A plate fact: the number and the unit it was typed in. */
export function quantity<D extends Dimension>(
  dimension: D,
  range: { min?: number; max?: number } = {},
) {
  return v.strictObject({
    v: v.pipe(v.number(), v.finite(), v.minValue(range.min ?? 0), v.maxValue(range.max ?? 1e9)),
    u: v.picklist(unitsOf(dimension) as UnitOf<D>[]),
  });
}

/** Conductor size in the system it was typed in; square millimetres and AWG are never turned into each other. */
export const sizeSchema = v.union([
  v.strictObject({ mm2: v.pipe(v.number(), v.gtValue(0), v.maxValue(1000)) }),
  v.strictObject({
    awg: v.pipe(v.string(), v.regex(/^(\d{1,2}|[1-4]\/0)$/u, 'an AWG size such as 14 or 2/0')),
  }),
]);
export type Size = v.InferOutput<typeof sizeSchema>;

/**
 * A size as it is written on a cable.
 *
 * @example sizeText({ awg: '14' }) // '14 AWG'
 */
export function sizeText(size: Size | undefined): string {
  if (!size) return '';
  return 'mm2' in size ? `${size.mm2} mm²` : `${size.awg} AWG`;
}
