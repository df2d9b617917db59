import { hashOf, readEnvelope } from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
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
