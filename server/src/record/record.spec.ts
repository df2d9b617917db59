import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Envelope, Job } from '@tactron/core/job';
import { createDataSource } from '../db/data-source.js';
import { databaseUrls, openBed, type Bed } from '../testing/testbed.js';

const signed = new URL('../../../demo/fm-drum-2.tactron.json', import.meta.url);

/** A record is reckoned and laid out from nothing. */
const PATIENCE_MS = 60_000;

describe('the record made on the server', () => {
  let bed: Bed;
  let file: Envelope & { job: Job };
  beforeAll(async () => {
    bed = await openBed();
    file = JSON.parse(await readFile(signed, 'utf8')) as typeof file;
  });
  afterAll(() => bed.close());

  const brought = async (data: unknown): Promise<string> => {
    const { status, body } = await bed.ask('POST', 'import', data);
    expect(status).withContext(JSON.stringify(body)).toBe(201);
    return body['id'];
  };
  /** A file of a job, read to its end at once: an answer that nobody reads is not kept for ever. */
  const had = async (id: string, name: string) => {
    const answer = await fetch(`${bed.url}/api/jobs/${id}/${name}`);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    return { status: answer.status, headers: answer.headers, bytes };
  };
  const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
  /** Every word of a PDF, page by page. */
  const pagesOf = async (bytes: Uint8Array): Promise<string[]> => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
    return Promise.all(
      Array.from({ length: pdf.numPages }, async (_, i) => {
        const { items } = await (await pdf.getPage(i + 1)).getTextContent();
        return items.map((x) => ('str' in x ? x.str : '')).join('');
      }),
    );
  };
  /** What a reader's program shows of it: its title, and the parts by which one turns its pages. */
  const headOf = async (bytes: Uint8Array) => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
    const { info } = (await pdf.getMetadata()) as { info: { Title?: string } };
    const outline = (await pdf.getOutline()) as { title: string }[];
    return { title: info.Title, outline: outline.map((o) => o.title) };
  };
  const forget = async (id: string): Promise<void> => {
    const owner = await createDataSource(databaseUrls().owner, 1).initialize();
    for (const table of ['evidence', 'evidence_origin', 'job_change'])
      await owner.query(`DELETE FROM ${table} WHERE job_id = $1`, [id]);
    await owner.query(`DELETE FROM job WHERE id = $1`, [id]);
    await owner.destroy();
  };
  /** What differs from one printing to the next: when it was made. */
  const apartFrom = (pages: string[]): string[] =>
    pages.map((p) => p.replace(/revision \d+ · [^:]+:\d\d/gu, 'revision and moment'));

  /** Both files of a job, made at the same time. */
  const printed = async (id: string) => {
    const [pdf, page] = await Promise.all([
      had(id, 'record.pdf'),
      had(id, 'record.html?decimal=,'),
    ]);
    expect([pdf.status, page.status]).toEqual([200, 200]);
    return { pdf, page, html: textOf(page.bytes) };
  };

  it(
    'tells every wire, reading and signature, and the same once the job was forgotten here and came in again',
    async () => {
      const id = await brought(file);
      const { pdf, page, html } = await printed(id);
      expect(pdf.headers.get('content-type')).toBe('application/pdf');
      expect(pdf.headers.get('content-disposition')).toMatch(/FM-DRUM-2.*-record-r\d+\.pdf/u);
      const pages = await pagesOf(pdf.bytes);
      expect(pages.length).toBeGreaterThan(8);
      const text = pages.join(' ').replace(/\s+/gu, ' ');
      for (const { number } of Object.values(file.job.adopted?.wires ?? {}))
        expect(text).withContext(`wire ${number}`).toContain(number);
      for (const e of file.evidence)
        if (e.kind === 'signature') expect(text).toContain(`${e.author.name}, ${e.author.role}`);
      expect(text).toContain('signed and closed');
      expect(text).not.toContain('□');
      expect(pages.at(-1)).toMatch(new RegExp(`page ${pages.length} of ${pages.length}`, 'u'));
      const { title, outline } = await headOf(pdf.bytes);
      expect(title).toContain('FM-DRUM-2');
      for (const part of ['Plates', 'Wires', 'Dead checks', 'Live tests', 'Signatures'])
        expect(outline).toContain(part);
      // The job is a copy here: its tag has a space in it, and its drawings are titled as ever.
      expect(outline).toContain('Circuit diagram, power, as built');
      expect(page.headers.get('content-type')).toContain('text/html');
      expect(html).toContain('<section id="wires">');
      expect(html).toMatch(/\d,\d+ Ω/u);
      expect(html).not.toMatch(/\d\.\d+ Ω/u);

      const out = JSON.parse(textOf((await had(id, 'file')).bytes)) as Envelope;
      await forget(id);
      expect((await had(id, 'record.pdf')).status).toBe(404);
      expect(await brought(out)).toBe(id);
      const again = await printed(id);
      expect(apartFrom(await pagesOf(again.pdf.bytes))).toEqual(apartFrom(pages));
      expect(apartFrom([again.html])).toEqual(apartFrom([html]));
    },
    PATIENCE_MS,
  );

  it(
    'is not there for a job that is not, nor for one that may not be seen',
    async () => {
      expect((await had('00000000-0000-4000-8000-000000000000', 'record.pdf')).status).toBe(404);
      expect((await had('no-id', 'record.pdf')).status).toBe(400);
      const id = await brought(file);
      expect((await had(id, 'record.html?decimal=x')).status).toBe(400);
      const closed = await openBed({ accounts: true });
      try {
        expect((await fetch(`${closed.url}/api/jobs/${id}/record.pdf`)).status).toBe(401);
      } finally {
        await closed.close();
      }
    },
    PATIENCE_MS,
  );
});
