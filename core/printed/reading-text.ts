import {
  isOpenEnded,
  readingTold,
  type EvidenceBody,
  type EvidenceOf,
  type Expectation,
} from '../job/index.js';
import type { SaidStep } from '../said/index.js';
import { formatNumber, formatValue, type DecimalMark } from '../units/index.js';

/** A place that is read, in words: a state of a control by its name, terminals as they are marked. */
export const placeName = (where: string, { places }: Pick<SaidStep, 'places'>): string =>
  (places as Partial<Record<string, string>>)[where] ?? where;

/** A reading as it is shown: its values with their units, an answer by its name. */
export function readingText(
  body: EvidenceBody<'reading'>,
  step: Pick<SaidStep, 'choices' | 'places'>,
  mark: DecimalMark,
): string {
  return readingTold(body)
    .values.map(({ where, value, unit = '', over }) => {
      const at = where ? `${placeName(where, step)} ` : '';
      if (over) return unit === 'Ω' ? `${at}OL` : `${at}over range${unit ? `, ${unit}` : ''}`;
      if (typeof value === 'number') return `${at}${formatValue(value, unit, 5, mark)}`;
      return `${at}${step.choices.find((c) => c.value === value)?.name ?? String(value ?? '')}`;
    })
    .join(', ');
}

/**
 * Who stands for a reading: who wrote it, and who read, where that was somebody else.
 *
 * @example readBy(reading) // 'A. Hollis, read by T. Marsh'
 */
export const readBy = ({ author, body }: Pick<EvidenceOf<'reading'>, 'author' | 'body'>): string =>
  'version' in body && body.reader ? `${author.name}, read by ${body.reader}` : author.name;

/** Ohms that are no way: overload, or more than any wire has. */
const isNoWay = (range: Range): boolean => range.unit === 'Ω' && isOpenEnded(range);

type Range = Extract<Expectation, { kind: 'range' }>;

/**
 * The value that is expected. One that lies at an end of what is accepted is a limit, not what a meter will show, and is
 * called so.
 *
 * @example nominalText({ kind: 'range', lo: 10, hi: 66.8, nominal: 66.8, unit: 'A' }, '.') // 'at most 66.8 A'
 */
export function nominalText(range: Range, mark: DecimalMark): string {
  const { lo, hi, nominal, unit } = range;
  if (isNoWay(range)) return 'no way';
  const value = formatValue(nominal, unit, 4, mark);
  if (nominal >= hi) return `at most ${value}`;
  return nominal <= lo && nominal !== 0 ? `at least ${value}` : value;
}

/**
 * What a step expects, a line a place where they differ; one line for what is read once.
 *
 * @example expectedLines(said, '.')[0] // { place: 'at rest', nominal: 'no way', range: 'OL, or 1 kΩ and more' }
 */
export function expectedLines(
  said: Pick<SaidStep, 'step' | 'places'>,
  mark: DecimalMark,
): { readonly place: string; readonly nominal: string; readonly range: string }[] {
  const { expect, each, fields = [] } = said.step;
  return (each ?? (expect ? [expect] : [])).flatMap((e, i) =>
    e.kind === 'range'
      ? [
          {
            place: each ? placeName(fields[i] ?? '', said) : '',
            nominal: nominalText(e, mark),
            range: rangeText(e, mark),
          },
        ]
      : [],
  );
}

/**
 * What is accepted, from end to end.
 *
 * @example rangeText({ kind: 'range', lo: 10, hi: 66.8, nominal: 66.8, unit: 'A' }, '.') // '10 … 66.8 A'
 */
export function rangeText(range: Range, mark: DecimalMark): string {
  const { lo, hi, unit } = range;
  const digits = Math.abs(hi - lo) < 1 ? 2 : 1;
  if (isNoWay(range)) return `OL, or ${formatNumber(lo / 1000, 1, mark)} kΩ and more`;
  if (isOpenEnded(range)) return `${formatNumber(lo, digits, mark)} ${unit} or more`;
  return `${formatNumber(lo, digits, mark)} … ${formatNumber(hi, digits, mark)} ${unit}`;
}
