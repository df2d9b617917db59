import { readingTold, type EvidenceBody, type Expectation } from '@tactron/core/job';
import { formatNumber, formatValue, type DecimalMark } from '@tactron/core/units';

/** A reading as it is shown: its values with their units, an answer by its name. */
export function readingText(
  body: EvidenceBody<'reading'>,
  choices: readonly { readonly value: string; readonly name: string }[],
  mark: DecimalMark,
): string {
  return readingTold(body)
    .values.map(({ where, value, unit = '', over }) => {
      const at = where ? `${where} ` : '';
      if (over) return `${at}over range${unit ? `, ${unit}` : ''}`;
      if (typeof value === 'number') return `${at}${formatValue(value, unit, 5, mark)}`;
      return `${at}${choices.find((c) => c.value === value)?.name ?? String(value ?? '')}`;
    })
    .join(', ');
}

type Range = Extract<Expectation, { kind: 'range' }>;

/** From this share of its upper end on a range has no upper end to speak of. */
const OPEN_RATIO = 10_000;

/**
 * The value that is expected. One that lies at an end of what is accepted is a limit, not what a meter will show, and is
 * called so.
 *
 * @example nominalText({ kind: 'range', lo: 10, hi: 66.8, nominal: 66.8, unit: 'A' }, '.') // 'at most 66.8 A'
 */
export function nominalText({ lo, hi, nominal, unit }: Range, mark: DecimalMark): string {
  const value = formatValue(nominal, unit, 4, mark);
  if (nominal >= hi) return `at most ${value}`;
  return nominal <= lo && nominal !== 0 ? `at least ${value}` : value;
}

/**
 * What is accepted, from end to end.
 *
 * @example rangeText({ kind: 'range', lo: 10, hi: 66.8, nominal: 66.8, unit: 'A' }, '.') // '10 … 66.8 A'
 */
export function rangeText({ lo, hi, unit }: Range, mark: DecimalMark): string {
  const digits = Math.abs(hi - lo) < 1 ? 2 : 1;
  if (lo > 0 && hi >= OPEN_RATIO * lo) return `${formatNumber(lo, digits, mark)} ${unit} or more`;
  return `${formatNumber(lo, digits, mark)} … ${formatNumber(hi, digits, mark)} ${unit}`;
}
