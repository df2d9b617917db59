import { readingTold, type EvidenceBody } from '@tactron/core/job';
import { formatValue, type DecimalMark } from '@tactron/core/units';

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
