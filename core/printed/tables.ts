import type { RecordSection } from './cells.js';

/** A table of the record as plain text: heads where it has any, and rows of as many cells each. */
export interface RecordTable {
  readonly heads: readonly string[] | undefined;
  readonly rows: readonly (readonly string[])[];
}

/** A part of the record as a table; what stands small below a cell has a column of its own. */
export function tableOf({ heads, rows }: RecordSection): RecordTable {
  const columns = Math.max(0, ...rows.map((row) => row.length));
  const noted = Array.from({ length: columns }, (_, c) => rows.some((row) => row[c]?.sub));
  const each = (of: (c: number) => readonly [string, string]): string[] =>
    noted.flatMap((notes, c) => (notes ? [...of(c)] : [of(c)[0]]));
  return {
    heads: heads ? each((c) => [heads[c] ?? '', `${heads[c] ?? ''} (note)`]) : undefined,
    rows: rows.map((row) => each((c) => [row[c]?.text ?? '', row[c]?.sub ?? ''])),
  };
}

/**
 * Every part of the record that has rows, as a table by the name of its file.
 *
 * @example Object.keys(recordTables(recordSections(input)))[0] // 'tables/plates.csv'
 */
export const recordTables = (
  sections: readonly RecordSection[],
): Record<string, { heads: readonly string[]; rows: RecordTable['rows'] }> =>
  Object.fromEntries(
    sections
      .filter((s) => s.rows.length > 0)
      .map((s) => {
        const { heads, rows } = tableOf(s);
        return [
          `tables/${s.id}.csv`,
          { heads: heads ?? rows[0].map((_, c) => ['what', 'value'][c] ?? ''), rows },
        ];
      }),
  );
