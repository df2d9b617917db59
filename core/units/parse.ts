import { unitsOf, type Dimension, type Quantity } from './dimensions.js';

/** What a person typed, understood or not. `ambiguous` offers both readings of one separator before three digits. */
export type Parsed =
  | { readonly ok: true; readonly quantity: Quantity }
  | {
      readonly ok: false;
      readonly why: 'empty' | 'notANumber' | 'unknownUnit';
      readonly units?: string[];
    }
  | { readonly ok: false; readonly why: 'ambiguous'; readonly readings: readonly [number, number] };

/** Spellings that people type for units, besides the units themselves. */
const spellings: Record<string, string> = {
  ohm: 'Ω',
  ohms: 'Ω',
  r: 'Ω',
  kohm: 'kΩ',
  k: 'kΩ',
  mohm: 'MΩ',
  'r/min': 'rpm',
  'min-1': 'rpm',
  '1/min': 'rpm',
  u: 'rpm',
  'n·m': 'Nm',
  'n.m': 'Nm',
  'lbft': 'lb·ft',
  'lb-ft': 'lb·ft',
  'lbft2': 'lb·ft²',
  'lb-ft2': 'lb·ft²',
  'lbin': 'lb·in',
  'lb-in': 'lb·in',
  'kgm2': 'kg·m²',
  'kg·m2': 'kg·m²',
  'kgm²': 'kg·m²',
  'c': '°C',
  'f': '°F',
  '"': 'in',
  "'": 'ft',
  sec: 's',
  amp: 'A',
  amps: 'A',
  volt: 'V',
  volts: 'V',
};

const shape = /^([+-]?)(\d[\d\s.,'’]*|[.,]\d+)\s*(.*)$/u;

/**
 * Reads a quantity as a person types it: comma or point as decimal mark, any unit of the dimension, blanks anywhere.
 * One separator followed by exactly three digits (`1,500`) is ambiguous and both readings are given back.
 *
 * @param text what was typed
 * @param dimension which units are allowed
 * @param unit unit taken when none is typed; the base unit by default
 * @example parseQuantity('1,5 kW', 'power') // { ok: true, quantity: { v: 1.5, u: 'kW' } }
 */
export function parseQuantity(
  text: string,
  dimension: Dimension,
  unit = unitsOf(dimension)[0],
): Parsed {
  const trimmed = text.trim();
  if (trimmed === '') return { ok: false, why: 'empty' };
  const parts = shape.exec(trimmed.replace('−', '-'));
  if (!parts) return { ok: false, why: 'notANumber' };
  const [, sign, digits, tail] = parts;
  const typed = tail.trim() === '' ? unit : findUnit(tail.trim(), dimension);
  if (typed === undefined) return { ok: false, why: 'unknownUnit', units: unitsOf(dimension) };
  const number = readNumber(digits.replace(/\s/gu, ''));
  if (number === undefined) return { ok: false, why: 'notANumber' };
  const signed = sign === '-' ? -1 : 1;
  if (Array.isArray(number))
    return { ok: false, why: 'ambiguous', readings: [signed * number[0], signed * number[1]] };
  return { ok: true, quantity: { v: signed * number, u: typed } };
}

function findUnit(tail: string, dimension: Dimension): string | undefined {
  const units = unitsOf(dimension);
  const lower = tail.toLowerCase();
  const exact = units.find((u) => u === tail);
  const spelt = spellings[lower];
  return (
    exact ??
    (spelt !== undefined && units.includes(spelt)
      ? spelt
      : units.find((u) => u.toLowerCase() === lower))
  );
}

function readNumber(digits: string): number | [number, number] | undefined {
  const marks = digits.match(/[.,'’]/gu) ?? [];
  if (marks.length === 0) return Number(digits);
  const kinds = new Set(marks);
  if (marks.length === 1 && kinds.has(marks[0]) && /[.,]/u.test(marks[0])) {
    const [whole, rest] = digits.split(marks[0]);
    const plain = Number(`${whole || '0'}.${rest}`);
    if (rest === '') return Number(whole);
    return rest.length === 3 && /^[1-9]\d{0,2}$/u.test(whole)
      ? [plain, Number(whole + rest)]
      : plain;
  }
  const last = marks[marks.length - 1];
  const groups = kinds.size === 1 ? digits : digits.slice(0, digits.lastIndexOf(last));
  if (kinds.size > 2 || (kinds.size === 2 && digits.indexOf(last) !== digits.lastIndexOf(last)))
    return undefined;
  if (!/^\d{1,3}([.,'’]\d{3})+$/u.test(groups)) return undefined;
  const whole = groups.replace(/[.,'’]/gu, '');
  return Number(
    kinds.size === 1 ? whole : `${whole}.${digits.slice(digits.lastIndexOf(last) + 1)}`,
  );
}
