import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Job } from '@tactron/core/job';
import { change, madeSite, replace } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';

const drum = JSON.parse(
  readFileSync(new URL('../../../demo/fm-drum-1.tactron.json', import.meta.url), 'utf8'),
) as { readonly job: Job };

describe('the search of the board', () => {
  let bed: Bed;
  let site: string;
  let job: Job;
  beforeAll(async () => {
    bed = await openBed();
    site = `Hall ${randomUUID().slice(0, 8)}`;
    const siteId = await madeSite(bed, site);
    const moved = { ...drum.job, id: randomUUID(), siteId, tag: `W${randomUUID().slice(0, 6)}` };
    const { status, body } = await bed.ask('POST', 'import', { ...drum, job: moved, evidence: [] });
    expect(status).toBe(201);
    job = { ...moved, id: String(body['id']) };
  });
  afterAll(() => bed.close());

  /** The row of the job among what a text finds. */
  async function found(text: string): Promise<readonly string[] | undefined> {
    const query = `search=${encodeURIComponent(text)}&size=100`;
    const { rows } = (await bed.ask('GET', `jobs?${query}`)).body as unknown as {
      rows: { id: string; found: string[] }[];
    };
    return rows.find((r) => r.id === job.id)?.found;
  }

  const tagOf = (at: string): string => {
    const [id, terminal] = at.split(':');
    return `${job.adopted?.devices[id]?.tag ?? id}:${terminal}`;
  };

  it('finds a job by every wire, landing, part, task and setting, and says where', async () => {
    const { devices = {}, wires = {}, settings = {}, assignments = {} } = job.adopted ?? {};
    expect(Object.keys(wires).length).toBeGreaterThan(40);
    for (const w of Object.values(wires)) {
      const line = `wire ${w.number} ${tagOf(w.from)} ${tagOf(w.to)}`;
      expect(await found(line))
        .withContext(line)
        .toEqual([line]);
    }
    for (const { at, task } of Object.values(assignments))
      expect((await found(tagOf(at)))?.length)
        .withContext(task)
        .toBeGreaterThan(0);
    for (const code of Object.keys(settings))
      expect((await found(`setting ${code} =`))?.length)
        .withContext(code)
        .toBe(1);
    for (const { tag } of Object.values(devices))
      expect(await found(`${tag} `))
        .withContext(tag)
        .toBeDefined();
    expect(await found('safe torque off no such thing')).toBeUndefined();
  });

  it('finds it by its site, by family and model, and by its name without a line', async () => {
    expect(await found(site)).toEqual([]);
    expect(await found(job.tag)).toEqual([]);
    expect((await found(`${job.profile.family} ${job.profile.model}`))?.length).toBe(1);
    expect(await found('%')).toBeUndefined();
  });

  it('finds it by what is found of it, as long as that is of the revision that stands', async () => {
    const { revision } = (await bed.ask('GET', `jobs/${job.id}`)).body as unknown as {
      revision: number;
    };
    const tell = async (at: number, findings: readonly string[]): Promise<number> =>
      (await bed.ask('PUT', `jobs/${job.id}/findings`, { revision: at, findings })).status;
    const sentence = 'With S5 at local, S2 does nothing.';
    expect(await tell(revision + 1, [sentence])).toBe(200);
    expect(await found('S2 does nothing')).toBeUndefined();
    expect(await tell(revision, [sentence, 'Another thing.'])).toBe(200);
    expect(await found('S2 does nothing')).toEqual([sentence]);
    expect(await tell(revision, ['two\nlines'])).toBe(400);
    const patch = replace('/machine', 'Turner');
    await bed.ask('POST', `jobs/${job.id}/changes`, change(revision, patch));
    expect(await found('S2 does nothing')).toBeUndefined();
  });

  it('follows what is changed', async () => {
    const { revision } = (await bed.ask('GET', `jobs/${job.id}`)).body as unknown as {
      revision: number;
    };
    const renamed = async (base: number, tag: string): Promise<void> => {
      const patch = replace('/adopted/devices/device/tag', tag);
      const { status } = await bed.ask('POST', `jobs/${job.id}/changes`, change(base, patch));
      expect(status).toBe(200);
    };
    expect(await found('T987')).toBeUndefined();
    await renamed(revision, 'T987');
    expect((await found('T987:'))?.length).toBe(3);
    await renamed(revision + 1, job.adopted?.devices['device'].tag ?? '');
    expect(await found('T987')).toBeUndefined();
  });
});
