import { readFileSync } from 'node:fs';
import { profileSchema } from '@tactron/core/catalogue';
import type { Envelope } from '@tactron/core/job';
import { printOf, type PdfInput } from '@tactron/core/printed';
import { recordInputOf, saidDrawings } from '@tactron/core/said';
import * as v from 'valibot';
import { layouter } from '../server/src/record/layouter';
import { recordPdf } from '../server/src/record/pdf';
import { median, type Row } from './measure';

/** Pages that a long record has. */
const PAGES = 40;

const pagesOf = (pdf: Uint8Array): number =>
  Buffer.from(pdf)
    .toString('latin1')
    .match(/\/Type \/Page\b/gu)?.length ?? 0;

/** The record of the signed drum reckoned and printed, and one of forty pages: its tests read over and over again. */
export async function recordRows(): Promise<Row[]> {
  const file = JSON.parse(readFileSync('demo/fm-drum-2.tactron.json', 'utf8')) as Envelope;
  const { job, evidence, profiles } = file;
  const profile = v.parse(profileSchema, profiles[job.profile.sha256]);
  const reckon = async (): Promise<PdfInput> => {
    const input = recordInputOf(job, profile, evidence, { site: 'Bench', decimal: '.' });
    const drawings = await saidDrawings(job, profile, layouter);
    const at = '2026-10-05T10:00:00.000Z';
    return printOf(input, { revision: 1, at, base: 'http://bench/', drawings });
  };
  const timed = async <T>(of: () => Promise<T>): Promise<{ ms: number; made: T }> => {
    const begin = performance.now();
    const made = await of();
    return { ms: performance.now() - begin, made };
  };
  const reckoned = await timed(reckon);
  const first = await timed(() => recordPdf(reckoned.made));
  const { sections } = reckoned.made;
  const tests = sections.filter((s) => s.id === 'live' || s.id === 'dead');
  let long = reckoned.made;
  let pages = pagesOf(first.made);
  for (let more = 1; pages < PAGES; more++) {
    long = { ...reckoned.made, sections: [...sections, ...Array(more).fill(tests).flat()] };
    pages = pagesOf(await recordPdf(long));
  }
  const again: number[] = [];
  for (let i = 0; i < 3; i++) again.push((await timed(() => recordPdf(long))).ms);
  const took = median(again);
  return [
    {
      what: `record of the signed drum, ${pagesOf(first.made)} pages: reckoned and drawn, first`,
      measured: `${(reckoned.ms / 1000).toFixed(2)} s`,
      budget: '',
      ok: null,
    },
    {
      what: '  as PDF, first',
      measured: `${(first.ms / 1000).toFixed(2)} s`,
      budget: '',
      ok: null,
    },
    {
      what: `  as PDF, ${pages} pages`,
      measured: `${(took / 1000).toFixed(2)} s`,
      budget: '≤ 3 s',
      ok: took <= 3000,
    },
  ];
}
