import type { RecordSection } from './record-cells';

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
    .map(({ title, heads, rows }) => {
      const columns = Math.max(...rows.map((row) => row.length));
      const noted = Array.from({ length: columns }, (_, c) => rows.some((row) => row[c]?.sub));
      const head = Array.from({ length: columns }, (_, c) => {
        const name = heads?.[c] ?? '';
        return noted[c] ? [name, `${name} (note)`] : [name];
      }).flat();
      const body = rows.map((row) =>
        Array.from({ length: columns }, (_, c) =>
          noted[c] ? [row[c]?.text ?? '', row[c]?.sub ?? ''] : [row[c]?.text ?? ''],
        ).flat(),
      );
      const texts = heads ? [head, ...body] : body;
      return {
        sheet: nameOf(title, taken),
        columns: head.map((_, c) => ({
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

/** The workbook as a file. */
export async function recordWorkbook(sections: readonly RecordSection[]): Promise<Blob> {
  const { default: write } = await import('write-excel-file/universal');
  return write(recordSheets(sections)).toBlob();
}
