import { randomUUID, sign } from 'node:crypto';
import {
  evidenceHash,
  isSigned,
  keyName,
  sealedText,
  verifyEvidence,
  type Evidence,
  type Job,
  type Seal,
} from '@tactron/core/job';
import { madeJob, madeSite, reading } from '../testing/samples.js';
import { openBed, type Bed } from '../testing/testbed.js';
import { signingKey } from './seal.js';

interface File {
  job: Job;
  evidence: Evidence[];
  seal?: Seal;
}

describe('what a file proves', () => {
  let bed: Bed;
  let siteId: string;
  let job: Job;
  let file: File;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());
  beforeEach(async () => {
    job = await madeJob(bed, siteId);
    await bed.ask(
      'POST',
      `jobs/${job.id}/evidence`,
      [1, 2, 3].map(() => reading(job.id)),
    );
    file = (await bed.ask('GET', `jobs/${job.id}/file`)).body as unknown as File;
  });

  const taken = async (change: (f: File) => void) => {
    const copy = structuredClone(file);
    change(copy);
    return bed.ask('POST', 'import', copy);
  };
  const chained = (list: readonly Evidence[]): Evidence[] => {
    let prevHash = '';
    return list.map((e) => {
      const told = { ...e, prevHash };
      return { ...told, hash: (prevHash = evidenceHash(prevHash, told)) };
    });
  };

  it('is signed over the heads of both chains with a key that is told, and by no other', () => {
    const { seal } = file as { seal: Seal };
    expect([seal.evidence, isSigned(seal)]).toEqual([
      { count: 3, ends: file.evidence[2].hash as string },
      true,
    ]);
    for (const other of [
      { ...seal, revision: 5 },
      { ...seal, evidence: { ...seal.evidence, count: 2 } },
      { ...seal, key: signingKey().open },
      { ...seal, signature: 'AAAA' },
      { ...seal, key: 'AAAA' },
    ])
      expect(isSigned(other)).toBeFalse();
  });

  it('is refused when a reading was changed and the chain made anew, or its end was cut off', async () => {
    const forged = await taken((f) => {
      (f.evidence[1].body as { value: unknown }).value = 6;
      f.evidence = chained(f.evidence);
    });
    const cut = await taken((f) => void f.evidence.pop());
    const other = await taken((f) => ((f.seal as Seal).at = '2020-01-01T00:00:00Z'));
    for (const answer of [forged, cut, other])
      expect([answer.status, answer.body['path']]).toEqual([400, 'seal'] as never);
    expect(String(cut.body['title'])).toContain('3 pieces were signed, 2 are in the file');
  });

  it('is told as unsigned when the seal is gone, and as another server’s where another key signed', async () => {
    const bare = await taken((f) => {
      f.evidence = chained(f.evidence.slice(0, 2));
      delete f.seal;
    });
    expect([bare.status, bare.body['proof'], bare.body['evidence']]).toEqual([
      201,
      'unsigned',
      2,
    ] as never);
    const elsewhere = signingKey();
    const strange = await taken((f) => {
      const said = { ...(f.seal as Seal), key: elsewhere.open };
      const signature = sign(null, Buffer.from(sealedText(said)), elsewhere.secret);
      f.seal = { ...said, signature: signature.toString('base64') };
    });
    expect([strange.body['proof'], strange.body['server']]).toEqual([
      'signedElsewhere',
      keyName(elsewhere.open),
    ] as never);
  });

  it('comes with a copy: all evidence under the copy’s own chain, and where it is from', async () => {
    const { status, body } = await bed.ask('POST', 'import', file, {
      'x-author': encodeURIComponent('{"name":"I. Porter","role":"engineer"}'),
    });
    expect([status, body['copied'], body['evidence'], body['proof']]).toEqual([
      201,
      true,
      3,
      'signedHere',
    ] as never);
    const id = String(body['id']);
    const there = (await bed.ask('GET', `jobs/${id}/evidence`)).body as unknown as Evidence[];
    expect([there.length, new Set(there.map((e) => e.jobId)), verifyEvidence(there).ok]).toEqual([
      3,
      new Set([id]),
      true,
    ] as never);
    const again = (await bed.ask('GET', `jobs/${id}/file`)).body as unknown as {
      origins: unknown[];
    };
    expect(again.origins).toEqual([
      jasmine.objectContaining({
        fromJob: job.id,
        firstSeq: 1,
        count: 3,
        by: 'I. Porter',
        proof: 'signedHere',
        sealed: 3,
      }) as never,
    ]);
    // and the origins travel on with the next file
    const third = await bed.ask('POST', 'import', again);
    const origins = (await bed.ask('GET', `jobs/${String(third.body['id'])}/evidence/origins`))
      .body as unknown as unknown[];
    expect(origins.length).toBe(2);
  });

  it('keeps evidence apart by job: one id in two jobs is two pieces, and another text under it is refused', async () => {
    const other = await madeJob(bed, siteId, 'S-2');
    const piece = reading(other.id, { id: file.evidence[0].id });
    const stored = await bed.ask('POST', `jobs/${other.id}/evidence`, [piece]);
    expect([stored.status, (stored.body as unknown as Evidence[])[0].jobId]).toEqual([
      201,
      other.id,
    ]);
    const twin = { ...piece, body: { code: '212', value: 7 } } as Evidence;
    const refused = await bed.ask('POST', `jobs/${other.id}/evidence`, [twin]);
    expect([refused.status, refused.body['type']]).toEqual([
      409,
      'urn:tactron:problem:evidenceTaken',
    ] as never);
  });

  it('is read from where a window stands, and whole where its beginning is another', async () => {
    const after = async (n: number, hash: string) =>
      (await bed.ask('GET', `jobs/${job.id}/evidence?after=${n}&hash=${hash}`)).body as unknown as {
        after: number;
        evidence: Evidence[];
      };
    const hash = file.evidence[1].hash as string;
    const rest = await after(2, hash);
    expect([rest.after, rest.evidence.map((e) => e.id)]).toEqual([2, [file.evidence[2].id]]);
    expect((await after(3, hash)).after).toBe(0);
    expect((await after(0, '')).evidence.length).toBe(3);
    expect((await bed.ask('GET', `jobs/${randomUUID()}/evidence?after=0`)).status).toBe(404);
  });
});
