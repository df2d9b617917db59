import { row, type RecordSection } from './cells.js';
import { recordSheets } from './sheets.js';

const section = (title: string, rows: RecordSection['rows'], heads?: string[]): RecordSection => ({
  id: title,
  title,
  ...(heads ? { heads } : {}),
  widths: ['auto'],
  rows,
});

describe('the tables of a record as a workbook', () => {
  it('are a sheet each, with every cell, numbers as numbers, notes in a column of their own', () => {
    const [wires] = recordSheets([
      section(
        'Wires',
        [row('12', 'S1:12'), [{ text: '13' }, { text: 'S2:13', sub: 'by A' }]],
        ['wire', 'from'],
      ),
    ]);
    expect(wires.data.map((cells) => cells.map((c) => c?.value ?? null))).toEqual([
      ['wire', 'from', 'from (note)'],
      [12, 'S1:12', null],
      [13, 'S2:13', 'by A'],
    ]);
    expect(wires.stickyRowsCount).toBe(1);
  });

  it('have names that a workbook takes, each its own, and none for a part without rows', () => {
    const long = 'What was not tested, not read or not judged';
    const names = recordSheets([
      section(long, [row('a')]),
      section(`${long} again`, [row('b')]),
      section('Links / slide [switches]', [row('c')]),
      section('Empty', []),
    ]).map((s) => s.sheet);
    expect(names.length).toBe(3);
    expect(new Set(names.map((n) => n.toLowerCase())).size).toBe(3);
    for (const name of names) {
      expect(name.length).toBeLessThanOrEqual(31);
      expect(name).not.toMatch(/[\\/?*[\]:]/u);
    }
  });

  it('never hand on a formula: what begins like one is text', () => {
    const [sheet] = recordSheets([
      section('Notes', [row('=1+1', '-5', '+cmd', '0012345678901234567')]),
    ]);
    expect(sheet.data[0].map((c) => typeof c?.value)).toEqual([
      'string',
      'number',
      'string',
      'string',
    ]);
  });
});
