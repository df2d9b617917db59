import { schemeSchema, tickOf } from '../job/index.js';
import type { HandLine, SaidRequirement } from '../said/index.js';
import { operatorRows } from './operator-rows.js';
import { pdfDefinition, type PdfInput } from './pdf-definition.js';
import { missingSigns, runsOf } from './pdf-text.js';
import type { RecordInput } from './cells.js';
import { handWork } from './hands.js';
import { wishRows } from './wish-rows.js';

describe('the record', () => {
  it('tells every wish that was answered, in the order in which it is asked, and none that was not', () => {
    const scheme = {
      lamps: ['running', 'healthy'],
      maxHz: 50,
      startStop: 'threeWire',
      dialOhm: { v: 5, u: 'kΩ' },
      brakeRelease: true,
      presetsHz: [20, 35],
    } as const;
    const rows = wishRows(scheme as never, { 'wish.maxHz': 'highest frequency' });
    expect(rows).toEqual([
      ['startStop', 'start and stop button (three-wire)'],
      ['dialOhm', '5 kΩ'],
      ['highest frequency', '50 Hz'],
      ['presetsHz', '20 Hz, 35 Hz'],
      ['brakeRelease', 'yes'],
      ['lamps', 'running, healthy'],
    ]);
    expect(Object.keys(schemeSchema.entries).length).toBeGreaterThan(40);
  });

  it('tells part by part what was done by hand, by whom, and what was not; nothing where nobody ticked', () => {
    const line = (id: string, title: string, isWire = true): HandLine => ({
      id,
      line: `${id}@x`,
      group: title,
      title,
      isWire,
      at: '',
      cable: '',
      text: `do ${id}`,
      torque: '',
      fit: '',
    });
    const tick = (lines: string[], act: 'landed' | 'torque', name: string, minute: number) => ({
      id: `${name}${minute}`,
      kind: 'handTick',
      atClient: `2026-11-02T08:0${minute}:00.000Z`,
      author: { name, role: '' },
      body: tickOf(lines, act, 'line'),
    });
    const hand = [line('w1', 'Power'), line('w2', 'Power'), line('label:W1', 'Labels', false)];
    const wires = { w1: { number: '1' }, w2: { number: '2' } };
    const input = (evidence: unknown[]): RecordInput =>
      ({ job: { adopted: { wires } }, derived: { hand }, evidence }) as never;
    expect(handWork(input([])).rows).toEqual([]);
    const { rows } = handWork(
      input([
        tick(['w1@x'], 'landed', 'A. Hollis', 1),
        tick(['w1@x'], 'torque', 'M. Stroud', 2),
        tick(['w2@old'], 'landed', 'A. Hollis', 3),
      ]),
    );
    expect(rows.map((r) => r.map((c) => c.text))).toEqual([
      ['Power', '1 of 2', 'wires 2', '1 of 2'],
      ['Labels', '0 of 1', 'do label:W1', ''],
    ]);
    expect(rows[0][1].sub).toContain('A. Hollis');
    expect(rows[0][3].sub).toContain('M. Stroud');
  });

  it('says to the operator what is required, and plainly what this job does instead', () => {
    const of = (id: string, state: SaidRequirement['state'] = 'met'): SaidRequirement => ({
      id,
      protects: true,
      text: id,
      state,
      does: 'it runs on',
      proof: undefined,
      stated: null,
      mayBeStated: false,
      simulatedOnly: false,
    });
    const rows = operatorRows([
      of('lamp.running.rest'),
      of('estop.stops', 'notMet'),
      of('direction.forward'),
      of('direction.reverse'),
      of('estop.channel.1.alone'),
      { ...of('stop.1.stops'), stated: { by: 'x', role: 'y', why: 'z' } as never },
    ]);
    expect(rows).toEqual([
      ['start', 'direction.forward'],
      ['', 'direction.reverse'],
      ['emergency stop', 'Required, and not so now (it runs on): estop.stops'],
      ['lamps and signals', 'lamp.running.rest'],
    ]);
  });

  it('prints every sign in a font that has it, and a box for one that none has', () => {
    expect(runsOf('2.2 kΩ ≤ 5 µF\nč')).toEqual([
      { text: '2.2 k', font: 'Next' },
      { text: 'Ω', font: 'Maths' },
      { text: ' ', font: 'Next' },
      { text: '≤', font: 'Maths' },
      { text: ' 5 ', font: 'Next' },
      { text: 'μ', font: 'Maths' },
      { text: 'F ', font: 'Next' },
      { text: 'č', font: 'NextExt' },
    ]);
    expect(missingSigns('漢a漢')).toEqual(['漢']);
  });

  it('goes out with its state, roles that have not signed and hashes, on the paper of the job', () => {
    const input: PdfInput = {
      tag: 'T-1',
      machine: 'sieve',
      state: 'Draft of issue 1: not signed',
      revision: 7,
      date: 'today',
      code: 'x',
      paper: 'LETTER',
      sections: [],
      signatures: [],
      missing: ['Commissioned by'],
      open: [{ what: 'a check', reason: 'later' }],
      hashes: ['SHA-256 abc'],
      drawings: [],
      pictures: [],
    };
    const made = pdfDefinition(input);
    expect([made.subset, made.pageSize]).toEqual(['PDF/A-2b', 'LETTER'] as never);
    const text = JSON.stringify(made.content);
    for (const said of ['not signed', 'Commissioned by', 'SHA-256 abc', 'Open: a check', 'sieve'])
      expect(text).withContext(said).toContain(said);
  });
});
