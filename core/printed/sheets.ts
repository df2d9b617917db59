import type { RecordSection } from './cells.js';
import { tableOf } from './tables.js';

/** A sheet of a workbook: its name, and its rows of cells. */
export interface RecordSheet {
  readonly sheet: string;
  readonly columns: { width: number }[];
  readonly data: ({ value: string | number; fontWeight?: 'bold'; wrap: true } | null)[][];
  readonly stickyRowsCount: number;
}

/** Longest name that a sheet may have, and signs it may not. */
const NAME_LENGTH = 31;
const FORBIDDEN = /[\\/?*[\]:]/gu;
/** Width of a column, in letters. */
const WIDTH = { least: 8, most: 60 } as const;

/** A name that no other sheet has, whatever the title is. */
function nameOf(title: string, taken: Set<string>): string {
  const short = title.replace(FORBIDDEN, ' ').slice(0, NAME_LENGTH).trim() || 'Sheet';
  let name = short;
  for (let i = 2; taken.has(name.toLowerCase()); i++)
    name = `${short.slice(0, NAME_LENGTH - String(i).length - 1)} ${i}`;
  taken.add(name.toLowerCase());
  return name;
}

/** A number as such, so that it can be reckoned with; anything else as text, never as a formula. */
function cellOf(text: string, bold = false) {
  const number = /^-?\d+(?:\.\d+)?$/u.test(text) && text.length < 15 ? Number(text) : undefined;
  return {
    value: number ?? text,
    wrap: true as const,
    ...(bold ? { fontWeight: 'bold' as const } : {}),
  };
}

/**
 * The tables of a record as sheets of a workbook, in the same order and with the same cells; what stands small below a cell
 * has a column of its own.
 *
 * @param sections as the record has them; a part without rows gives no sheet
 * @example recordSheets(recordSections(input)).map((s) => s.sheet) // ['Plates', …]
 */
export function recordSheets(sections: readonly RecordSection[]): RecordSheet[] {
  const taken = new Set<string>();
  return sections
    .filter((s) => s.rows.length > 0)
    .map((section) => {
      const { heads, rows } = tableOf(section);
      const texts = heads ? [heads, ...rows] : rows;
      return {
        sheet: nameOf(section.title, taken),
        columns: rows[0].map((_, c) => ({
          width: Math.min(
            WIDTH.most,
            Math.max(WIDTH.least, ...texts.map((row) => row[c].length + 2)),
          ),
        })),
        data: texts.map((row, i) =>
          row.map((text) => (text === '' ? null : cellOf(text, Boolean(heads) && i === 0))),
        ),
        stickyRowsCount: heads ? 1 : 0,
      };
    });
}
