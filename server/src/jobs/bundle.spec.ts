import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { hashOf, type Evidence, type Job } from '@tactron/core/job';
import { BlobRow, JobRow } from '../db/entities.js';
import { createDataSource } from '../db/data-source.js';
import { madeJob, madeSite, reading } from '../testing/samples.js';
import { databaseUrls, openBed, type Bed } from '../testing/testbed.js';

const sha = (body: Buffer): string => createHash('sha256').update(body).digest('hex');

describe('a bundle', () => {
  let bed: Bed;
  let siteId: string;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  const pictured = async (pictures: readonly Buffer[]): Promise<Job> => {
    const job = await madeJob(bed, siteId, 'PICTURES');
    for (const body of pictures) {
      await fetch(`${bed.url}/api/files/${sha(body)}`, {
        method: 'PUT',
        headers: { 'content-type': 'image/jpeg' },
        body: new Uint8Array(body),
      });
      const piece = reading(job.id, {
        kind: 'attachment',
        subject: 'supply.line',
        body: { sha256: sha(body), name: 'p.jpg', type: 'image/jpeg', bytes: body.length },
      } as Partial<Evidence>);
      expect((await bed.ask('POST', `jobs/${job.id}/evidence`, [piece])).status).toBe(201);
    }
    return job;
  };
  const bundleOf = async (job: Job): Promise<Buffer> =>
    Buffer.from(await (await fetch(`${bed.url}/api/jobs/${job.id}/bundle`)).arrayBuffer());
  const send = async (body: Buffer) => {
    const answer = await fetch(`${bed.url}/api/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: new Uint8Array(body),
    });
    return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
  };
  const forget = async (job: Job, pictures: readonly Buffer[]): Promise<void> => {
    const owner = await createDataSource(databaseUrls().owner, 1).initialize();
    for (const table of ['evidence', 'evidence_origin', 'job_change'])
      await owner.query(`DELETE FROM ${table} WHERE job_id = $1`, [job.id]);
    await owner.query(`DELETE FROM job WHERE id = $1`, [job.id]);
    for (const body of pictures)
      await owner.query(`DELETE FROM blob WHERE sha256 = $1`, [sha(body)]);
    await owner.destroy();
  };

  it('carries what one file cannot: seven pictures of 10 MB go out and come back the same', async () => {
    const pictures = Array.from({ length: 7 }, () => randomBytes(10_000_000));
    const job = await pictured(pictures);
    const inline = await bed.ask('GET', `jobs/${job.id}/file`);
    expect([inline.status, inline.body['type']]).toEqual([
      409,
      'urn:tactron:problem:takeBundle',
    ] as never);
    const zip = await bundleOf(job);
    const before = (await bed.ask('GET', `jobs/${job.id}/evidence`)).body;
    await forget(job, pictures);
    const { status, body } = await send(zip);
    expect([status, body['id'], body['copied'], body['evidence'], body['proof']]).toEqual([
      201,
      job.id,
      false,
      7,
      'signedHere',
    ]);
    const after = (await bed.ask('GET', `jobs/${job.id}/evidence`)).body;
    expect(hashOf(after)).toBe(hashOf(before));
    for (const picture of pictures)
      expect(await bed.db.getRepository(BlobRow).existsBy({ sha256: sha(picture) })).toBeTrue();
  }, 60_000);

  it('that is damaged, cut, no ZIP, or holds a picture other than it says is refused and nothing stays', async () => {
    const picture = randomBytes(3000);
    const job = await pictured([picture]);
    const zip = await bundleOf(job);
    await forget(job, [picture]);
    const other = Buffer.from(zip);
    other[zip.indexOf(picture) + 100] ^= 1;
    for (const bad of [
      zip.subarray(0, zip.length - 30),
      Buffer.from('no zip at all'),
      Buffer.alloc(0),
      other,
    ])
      expect((await send(bad)).status).toBe(400);
    expect(await bed.db.getRepository(JobRow).existsBy({ id: job.id })).toBeFalse();
    expect(await bed.db.getRepository(BlobRow).existsBy({ sha256: sha(picture) })).toBeFalse();
    expect((await fetch(`${bed.url}/api/jobs/${randomUUID()}/bundle`)).status).toBe(404);
  });
});
