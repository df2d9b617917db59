import { hashOf, readEnvelope } from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { drawingSvg, layOut } from './drawing.js';
import { recordFiles } from './record-files.js';
import { csv, wireTable } from './tables.js';

const job = adopted(bareJob());

describe('record files', () => {
  it('hold the same job, to the hash', () => {
    const files = recordFiles(job, marrowick());
    const read = readEnvelope(JSON.parse(files['job.json']));
    expect(read.ok && hashOf(read.envelope.job)).toBe(hashOf(job));
    expect(read.ok && Object.keys(read.envelope.profiles)).toEqual([job.profile.sha256]);
  });

  it('list every wire once, in the order of the markers', () => {
    const { rows } = wireTable(job);
    expect(rows.length).toBe(Object.keys(job.adopted?.wires ?? {}).length);
    expect(rows.map((r) => Number(r[0]))).toEqual(rows.map((_, i) => i + 1));
  });

  it('write CSV in which no cell is a formula and every cell comes back', () => {
    const text = csv({
      heads: ['a', 'b'],
      rows: [
        ['=1+1', 'x"y'],
        ['-5', 'two\nlines'],
        ['@cmd', 'plain'],
      ],
    });
    expect(text).toBe('a,b\r\n\'=1+1,"x""y"\r\n-5,"two\nlines"\r\n\'@cmd,plain\r\n');
    expect(csv({ heads: ['a', 'b'], rows: [] }, ',')).toBe('a;b\r\n');
    for (const hidden of [
      ' =1',
      '\n=1',
      '\t x',
      '\u00a0+1',
      '\u200b@x',
      '＝1',
      ' ＋1',
      '－x',
      '＠x',
    ])
      expect(csv({ heads: ['a'], rows: [[hidden]] }))
        .withContext(JSON.stringify(hidden))
        .toContain(`'${hidden}`);
    expect(csv({ heads: ['a'], rows: [['-5.2'], ['a=b'], ['x@y']] })).not.toContain("'");
  });
});

describe('the drawing', () => {
  const drawing = layOut(job, marrowick(), 'control');

  it('lays every wire on a track of its own, between the terminals it joins', () => {
    const tracks = drawing.wires.map((w) => w.points[1][1]);
    expect(new Set(tracks).size).toBe(tracks.length);
    const places = new Map(
      drawing.devices.flatMap((d) => d.terminals.map((t) => [t.landing, t] as const)),
    );
    for (const w of drawing.wires) {
      const wire = job.adopted?.wires[w.id];
      for (const [end, point] of [
        [wire?.from, w.points[0]],
        [wire?.to, w.points[3]],
      ] as const) {
        const place = places.get(end ?? '');
        expect(Math.abs((place?.x ?? NaN) - point[0])).toBeLessThanOrEqual(21);
        expect(place?.y).toBe(point[1]);
      }
    }
    expect(drawing.wires.length + layOut(job, marrowick(), 'power').wires.length).toBe(
      Object.keys(job.adopted?.wires ?? {}).length,
    );
  });

  it('shows hostile names as text', () => {
    const svg = drawingSvg(
      { ...drawing, devices: [{ ...drawing.devices[0], tag: '<script>alert(1)</script>' }] },
      'a & b',
    );
    expect(svg).not.toContain('<script>');
    expect(svg).toContain('a &amp; b');
  });
});
