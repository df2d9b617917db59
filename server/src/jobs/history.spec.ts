import { applyPatch, hashOf, patchBetween, type Job } from '@tactron/core/job';
import { author, change, madeJob, madeSite, replace } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';

describe('history', () => {
  let bed: Bed;
  let siteId: string;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  it('tells who did what and when, the newest first, a page at a time', async () => {
    const job = await madeJob(bed, siteId);
    for (let base = 0; base < 5; base++) {
      const sent = {
        ...change(base, replace('/machine', `m${base}`)),
        label: `machine ${base}`,
        author: { name: `P${base % 2}`, role: 'fitter' },
      };
      await bed.ask('POST', `jobs/${job.id}/changes`, sent);
    }
    const page = async (query: string) =>
      (await bed.ask('GET', `jobs/${job.id}/history?${query}`)).body as unknown as {
        revision: number;
        label: string;
        author: { name: string };
        places: string[];
        atServer: string;
      }[];
    const first = await page('size=4');
    expect(first.map((l) => [l.revision, l.label, l.author.name])).toEqual([
      [5, 'machine 4', 'P0'],
      [4, 'machine 3', 'P1'],
      [3, 'machine 2', 'P0'],
      [2, 'machine 1', 'P1'],
    ]);
    expect([
      first[0].places,
      Math.abs(Date.parse(first[0].atServer) - Date.now()) < 60_000,
    ]).toEqual([['/machine'], true]);
    expect(
      (await page('size=4&before=2')).map((l) => [l.revision, l.label, l.author.name]),
    ).toEqual([
      [1, 'machine 0', 'P0'],
      [0, 'made', author.name],
    ]);
  });

  it('gives the job back as it was at any moment, and going back is a change of its own', async () => {
    const job = await madeJob(bed, siteId);
    const states: Job[] = [job];
    for (let base = 0; base < 6; base++) {
      const after = {
        ...states[base],
        machine: `m${base}`,
        scheme: base % 2 ? {} : { maxHz: 40 + base },
      };
      states.push(after);
      await bed.ask(
        'POST',
        `jobs/${job.id}/changes`,
        change(base, patchBetween(states[base], after)),
      );
    }
    for (const [revision, state] of states.entries()) {
      const { body } = await bed.ask('GET', `jobs/${job.id}/at/${revision}`);
      expect(hashOf(body)).withContext(`revision ${revision}`).toBe(hashOf(state));
    }
    const back = change(6, patchBetween(states[6], states[2]));
    expect((await bed.ask('POST', `jobs/${job.id}/changes`, back)).body['revision']).toBe(
      7 as never,
    );
    expect(hashOf((await bed.ask('GET', `jobs/${job.id}`)).body['job'])).toBe(
      hashOf(applyPatch(states[6], back.patch)),
    );
    expect(hashOf((await bed.ask('GET', `jobs/${job.id}/at/6`)).body)).toBe(hashOf(states[6]));
    for (const none of ['8', '-1', 'x'])
      expect([400, 404]).toContain((await bed.ask('GET', `jobs/${job.id}/at/${none}`)).status);
  });
});
