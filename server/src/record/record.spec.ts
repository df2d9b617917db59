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
  const had = async (id: string, name: string): Promise<Response> =>
    fetch(`${bed.url}/api/jobs/${id}/${name}`);
  /** Every word of a PDF, page by page. */
  const pagesOf = async (answer: Response): Promise<string[]> => {
    const pdf = await getDocument({
      data: new Uint8Array(await answer.arrayBuffer()),
      verbosity: 0,
    }).promise;
    return Promise.all(
      Array.from({ length: pdf.numPages }, async (_, i) => {
        const { items } = await (await pdf.getPage(i + 1)).getTextContent();
        return items.map((x) => ('str' in x ? x.str : '')).join('');
      }),
    );
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

  it(
    'is a PDF with an outline that tells every wire, every reading and every signature',
    async () => {
      const id = await brought(file);
      const answer = await had(id, 'record.pdf');
      expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
      expect(answer.headers.get('content-disposition')).toMatch(/FM-DRUM-2-record-r\d+\.pdf/u);
      const copy = answer.clone();
      const pages = await pagesOf(answer);
      expect(pages.length).toBeGreaterThan(8);
      const text = pages.join(' ').replace(/\s+/gu, ' ');
      for (const { number } of Object.values(file.job.adopted?.wires ?? {}))
        expect(text).withContext(`wire ${number}`).toContain(number);
      for (const e of file.evidence)
        if (e.kind === 'signature') expect(text).toContain(`${e.author.name}, ${e.author.role}`);
      expect(text).toContain('signed and closed');
      expect(text).not.toContain('□');
      expect(pages.at(-1)).toMatch(new RegExp(`page ${pages.length} of ${pages.length}`, 'u'));
      const pdf = await getDocument({
        data: new Uint8Array(await copy.arrayBuffer()),
        verbosity: 0,
      }).promise;
      const outline = (await pdf.getOutline()).map((o: { title: string }) => o.title);
      expect(outline).toEqual(
        jasmine.arrayContaining(['Plates', 'Wires', 'Dead checks', 'Live tests', 'Signatures']),
      );
      const { info } = (await pdf.getMetadata()) as { info: { Title?: string } };
      expect(info.Title).toContain('FM-DRUM-2');
    },
    PATIENCE_MS,
  );

  it(
    'says the same once the job went out, was forgotten here and came in again',
    async () => {
      const id = await brought(file);
      const before = apartFrom(await pagesOf(await had(id, 'record.pdf')));
      const page = await (await had(id, 'record.html')).text();
      const out = (await (await had(id, 'file')).json()) as Envelope;
      await forget(id);
      expect((await had(id, 'record.pdf')).status).toBe(404);
      const again = await brought(out);
      expect(again).toBe(id);
      expect(apartFrom(await pagesOf(await had(again, 'record.pdf')))).toEqual(before);
      expect(apartFrom([await (await had(again, 'record.html')).text()])).toEqual(
        apartFrom([page]),
      );
    },
    PATIENCE_MS,
  );

  it(
    'is a page with the same parts, with the decimal mark that is asked for',
    async () => {
      const id = await brought(file);
      const answer = await had(id, 'record.html?decimal=,');
      expect(answer.headers.get('content-type')).toContain('text/html');
      const page = await answer.text();
      expect(page).toContain('<section id="wires">');
      expect(page).toMatch(/\d,\d+ Ω/u);
      expect(page).not.toMatch(/\d\.\d+ Ω/u);
      expect((await had(id, 'record.html?decimal=x')).status).toBe(400);
    },
    PATIENCE_MS,
  );

  it(
    'is not there for a job that is not, nor for one that may not be seen',
    async () => {
      expect((await had('00000000-0000-4000-8000-000000000000', 'record.pdf')).status).toBe(404);
      expect((await had('no-id', 'record.pdf')).status).toBe(400);
      const closed = await openBed({ accounts: true });
      try {
        const id = await brought(file);
        expect((await fetch(`${closed.url}/api/jobs/${id}/record.pdf`)).status).toBe(401);
      } finally {
        await closed.close();
      }
    },
    PATIENCE_MS,
  );
});
