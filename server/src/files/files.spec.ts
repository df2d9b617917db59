import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { type Evidence } from '@tactron/core/job';
import { BlobRow, EvidenceRow } from '../db/entities.js';
import { madeJob, madeSite, reading } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';

describe('pictures and files', () => {
  let bed: Bed;
  let siteId: string;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  const sha = (body: Buffer): string => createHash('sha256').update(body).digest('hex');
  const put = async (name: string, body: Buffer, type = 'image/jpeg') =>
    fetch(`${bed.url}/api/files/${name}`, {
      method: 'PUT',
      headers: { 'content-type': type },
      body: new Uint8Array(body),
    });
  const picture = (jobId: string, body: Buffer): Evidence =>
    reading(jobId, {
      kind: 'attachment',
      subject: 'supply.line',
      body: { sha256: sha(body), name: 'meter.jpg', type: 'image/jpeg', bytes: body.length },
    } as never);

  it('are stored once by their hash, whatever the number of times they are sent', async () => {
    const body = randomBytes(5000);
    for (let i = 0; i < 3; i++) expect((await put(sha(body), body)).status).toBe(201);
    expect(await bed.db.getRepository(BlobRow).countBy({ sha256: sha(body) })).toBe(1);
    const back = await fetch(`${bed.url}/api/files/${sha(body)}`);
    expect(Buffer.from(await back.arrayBuffer()).equals(body)).toBeTrue();
  });

  it('are never run by a browser: known kinds only, nothing sniffed, nothing executed', async () => {
    const body = Buffer.from('<script>alert(1)</script>');
    expect((await put(sha(body), body, 'text/html')).status).toBe(400);
    expect((await put(sha(body), body, 'image/svg+xml')).status).toBe(400);
    await put(sha(body), body, 'text/plain');
    const { headers } = await fetch(`${bed.url}/api/files/${sha(body)}`);
    expect([
      headers.get('x-content-type-options'),
      headers.get('content-disposition'),
      headers.get('content-security-policy'),
    ]).toEqual(['nosniff', 'attachment', "default-src 'none'; sandbox"]);
  });

  it('that are damaged, empty, too large or named otherwise are refused and not stored', async () => {
    const body = randomBytes(100);
    const before = await bed.db.getRepository(BlobRow).count();
    expect((await put('0'.repeat(64), body)).status).toBe(400);
    expect((await put('../../etc/passwd', body)).status).toBe(404);
    expect((await put('short', body)).status).toBe(400);
    expect((await put(sha(Buffer.alloc(0)), Buffer.alloc(0))).status).toBe(400);
    const large = Buffer.alloc(12_000_001);
    expect((await put(sha(large), large)).status).toBe(413);
    expect(await bed.db.getRepository(BlobRow).count()).toBe(before);
  });

  it('come before the evidence that names them', async () => {
    const job = await madeJob(bed, siteId);
    const body = randomBytes(300);
    const refused = await bed.ask('POST', `jobs/${job.id}/evidence`, [picture(job.id, body)]);
    expect([refused.status, refused.body['path']]).toEqual([400, '0.body.sha256'] as never);
    await put(sha(body), body);
    expect((await bed.ask('POST', `jobs/${job.id}/evidence`, [picture(job.id, body)])).status).toBe(
      201,
    );
  });

  it('in a file whose evidence or picture was tampered with are refused, and nothing is stored', async () => {
    const job = await madeJob(bed, siteId);
    const body = randomBytes(50);
    await put(sha(body), body);
    await bed.ask('POST', `jobs/${job.id}/evidence`, [reading(job.id), picture(job.id, body)]);
    // as an earlier release wrote it: the files within the JSON
    const evidence = (await bed.ask('GET', `jobs/${job.id}/evidence`)).body;
    const files = { [sha(body)]: { type: 'image/jpeg', base64: body.toString('base64') } };
    const file = { format: 'tactron-job', version: 2, job, profiles: {}, evidence, files };
    expect((await bed.ask('GET', `jobs/${job.id}/file`)).body['type']).toBe(
      'urn:tactron:problem:takeBundle' as never,
    );
    const id = randomUUID();
    const count = await bed.db.getRepository(EvidenceRow).count();
    const tampered = async (
      change: (f: {
        evidence: { body: Record<string, unknown> }[];
        files: Record<string, { base64: string }>;
      }) => void,
    ) => {
      const copy = JSON.parse(JSON.stringify(file).replaceAll(job.id, id)) as never;
      // under a new id the evidence is another job's: it is chained anew here, as a forger would
      change(copy);
      const { status, body: answer } = await bed.ask('POST', 'import', copy);
      return `${status} ${String(answer['path'])}`;
    };
    expect(await tampered(() => undefined)).toBe('400 evidence.0');
    const original = async (
      change: (f: {
        evidence: { body: Record<string, unknown> }[];
        files: Record<string, { base64: string }>;
      }) => void,
    ) => {
      const copy = JSON.parse(JSON.stringify(file)) as never;
      change(copy);
      const { status, body: answer } = await bed.ask('POST', 'import', copy);
      return `${status} ${String(answer['path'])}`;
    };
    expect(await original((f) => (f.evidence[0].body['value'] = 6))).toBe('400 evidence.0');
    expect(await original((f) => f.evidence.shift())).toBe('400 evidence.0');
    expect(await original((f) => (f.files[sha(body)].base64 = 'AAAA'))).toBe(
      `400 files.${sha(body)}`,
    );
    expect(await bed.db.getRepository(EvidenceRow).count()).toBe(count);
  });
});
