import { emptySite, type SiteDocument } from '@tactron/core/job';
import { author, madeSite } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';

describe('what a site settles', () => {
  let bed: Bed;
  beforeAll(async () => (bed = await openBed()));
  afterAll(() => bed.close());

  const put = (id: string, base: number, document: SiteDocument) =>
    bed.ask('PUT', `sites/${id}/document`, {
      base,
      document,
      author,
      atClient: '2026-01-01T08:00:00.000Z',
    });

  it('is empty at first, is kept by revision, and a change made on an older one is given what stands', async () => {
    const id = await madeSite(bed);
    const empty = emptySite();
    expect((await bed.ask('GET', `sites/${id}/document`)).body).toEqual({
      document: empty,
      revision: 0,
    } as never);
    const settled = { ...empty, requiredRoles: ['electrician', 'plant'] };
    expect((await put(id, 0, settled)).body).toEqual({ revision: 1 } as never);
    const stale = await put(id, 0, empty);
    expect([stale.status, stale.body['document'], stale.body['revision']]).toEqual([
      412,
      settled,
      1,
    ] as never);
    expect((await put(id, 1, { ...settled, requiredRoles: ['plant'] })).status).toBe(200);
  });

  it('keeps every instrument that readings may name, and names what does not fit', async () => {
    const id = await madeSite(bed);
    const instruments = { m1: { name: 'Multimeter', serial: '004711' } };
    expect((await put(id, 0, { ...emptySite(), instruments })).status).toBe(200);
    const gone = await put(id, 1, emptySite());
    expect([gone.status, gone.body['path']]).toEqual([400, 'document.instruments.m1'] as never);
    const outOfUse = { m1: { ...instruments.m1, outOfUse: true } };
    expect((await put(id, 1, { ...emptySite(), instruments: outOfUse })).status).toBe(200);
    const bad = await put(id, 2, { ...emptySite(), tolerances: { hz: -1 } });
    expect([bad.status, bad.body['path']]).toEqual([400, 'document.tolerances.hz'] as never);
  });
});
