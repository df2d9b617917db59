import type { Quantity } from './dimensions.js';

export type DecimalMark = '.' | ',';

/**
 * Writes a number with at most `digits` decimals, without trailing zeros, in the person's decimal mark.
 *
 * @example formatNumber(1459.96, 1) // "1460"
 * @example formatNumber(2.25, 2, ',') // "2,25"
 */
export function formatNumber(value: number, digits = 3, mark: DecimalMark = '.'): string {
  if (!Number.isFinite(value)) return '–';
  const fixed = value.toFixed(digits);
  const plain = fixed.includes('.') ? fixed.replace(/\.?0+$/u, '') : fixed;
  const shown = plain === '-0' ? '0' : plain;
  return (mark === ',' ? shown.replace('.', ',') : shown).replace('-', '−');
}

/** Writes a quantity as it was typed: its own digits and its own unit. */
export function formatQuantity(q: Quantity, mark: DecimalMark = '.'): string {
  const number = formatNumber(q.v, 6, mark);
  return q.u === '' ? number : `${number} ${q.u}`;
}

/** Writes a value with as many significant digits as a reading has, and its unit. */
export function formatValue(
  value: number,
  unit: string,
  significant = 4,
  mark: DecimalMark = '.',
): string {
  if (!Number.isFinite(value)) return '–';
  const decimals =
    value === 0 ? 0 : Math.max(0, significant - 1 - Math.floor(Math.log10(Math.abs(value))));
  const number = formatNumber(value, Math.min(decimals, 6), mark);
  return unit === '' ? number : `${number} ${unit}`;
}
