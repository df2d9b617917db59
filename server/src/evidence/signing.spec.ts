import { randomUUID } from 'node:crypto';
import { usualRoles, type Evidence } from '@tactron/core/job';
import { change, madeJob, madeSite, reading, replace } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';

describe('a record that is signed', () => {
  let bed: Bed;
  let siteId: string;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  it('is closed to changes once every role has signed, open to evidence, and opened again as the next issue', async () => {
    const job = await madeJob(bed, siteId, 'SIGNED');
    const at = `jobs/${job.id}`;
    const hash = 'a'.repeat(64);
    let second = 0;
    const post = async (kind: string, body: object, more: object = {}): Promise<void> => {
      const atClient = `2026-03-02T08:00:${String(second++).padStart(2, '0')}.000Z`;
      const piece = reading(job.id, {
        kind,
        subject: kind,
        body,
        atClient,
        ...more,
      } as Partial<Evidence>);
      const { status } = await bed.ask('POST', `${at}/evidence`, [piece]);
      expect(status).toBe(201);
    };
    const sign = (role: string): Promise<void> =>
      post('signature', { role, statement: 'x', documentHash: hash });
    const edit = (base: number, machine: string, id: string = randomUUID()) =>
      bed.ask('POST', `${at}/changes`, change(base, replace('/machine', machine), id));

    const onBoard = async (): Promise<unknown> => {
      const { rows } = (await bed.ask('GET', 'jobs?search=SIGNED')).body as unknown as {
        rows: { id: string; closed: number | null }[];
      };
      return rows.find((row) => row.id === job.id)?.closed;
    };

    expect(await onBoard()).toBeNull();
    await post('issue', { version: 1, number: 1, contentHash: hash, roles: [...usualRoles] });
    await sign(usualRoles[0]);
    const id = randomUUID();
    expect((await edit(0, 'one', id)).status).toBe(200);
    await sign(usualRoles[1]);
    const refused = await edit(1, 'two');
    expect([refused.status, refused.body['type'], refused.body['issue']]).toEqual([
      409,
      'urn:tactron:problem:closed',
      1,
    ] as never);
    // What arrived before it was closed is answered as the first time.
    expect((await edit(0, 'one', id)).status).toBe(200);
    await post('keyed', { code: '212', value: 5 });
    expect((await bed.ask('GET', at)).body['revision']).toBe(1);
    expect(await onBoard()).toBe(1);

    await post(
      'issue',
      { version: 1, number: 2, contentHash: hash, opens: true },
      { why: 'another ramp' },
    );
    expect((await edit(1, 'two')).status).toBe(200);
    expect(await onBoard()).toBeNull();
  });
});
