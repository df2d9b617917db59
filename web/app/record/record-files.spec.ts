import { recordHtml, row } from '@tactron/core/printed';
import { recordWorkbook } from './workbook';

describe('the files of a record', () => {
  it('are a page of its own that tells every cell and runs nothing that was typed', () => {
    const page = recordHtml({
      title: 'FM-<b>1</b>',
      machine: 'Drum & screw',
      state: 'Draft',
      signatures: [{ role: 'Accepted by', text: 'M. "Max" Stroud' }],
      sections: [
        {
          id: 'x',
          title: 'Readings',
          widths: ['auto', '*'],
          rows: [[{ text: '<script>alert(1)</script>' }, { text: '5 < 6', sub: 'by A & B' }]],
        },
        { id: 'y', title: 'Wires', widths: ['*'], rows: [], empty: 'No plan is adopted.' },
      ],
    });
    const doc = new DOMParser().parseFromString(page, 'text/html');
    expect(doc.querySelectorAll('script, b').length).toBe(0);
    expect([...doc.querySelectorAll('#x :is(th, td)')].map((c) => c.textContent)).toEqual([
      '<script>alert(1)</script>',
      '5 < 6by A & B',
    ]);
    expect(doc.querySelector('#y p')?.textContent).toBe('No plan is adopted.');
    expect(doc.querySelector('#signatures td')?.textContent).toBe('M. "Max" Stroud');
    expect(doc.querySelector('h1')?.textContent).toContain('FM-<b>1</b>');
  });

  it('are a workbook that begins as a ZIP does', async () => {
    const blob = await recordWorkbook([
      { id: 'wires', title: 'Wires', heads: ['wire'], widths: ['auto'], rows: [row('12')] },
    ]);
    const [p, k] = new Uint8Array(await blob.slice(0, 2).arrayBuffer());
    expect(String.fromCharCode(p, k)).toBe('PK');
  });
});
