import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Evidence } from '@tactron/core/job';
import { withDemo } from '../scripts/lib/testbed.mjs';
import type { Row } from './measure';

const auger = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a11';
const PHOTOS = 60;
const PHOTO_BYTES = 2_000_000;

/** What the server may hold more while a bundle goes out: less than its photos, and what is collected late with them, MB. */
const MOST_MB = (PHOTOS * PHOTO_BYTES) / 1e6;

/** Memory the process of the server holds, MB. */
const heldMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+) kB/u.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** A bundle with sixty photos fetched from the server: how soon it begins, how fast it comes, what it holds meanwhile. */
export async function bundleRows(): Promise<Row[]> {
  return withDemo('tactron_bench_bundle', async (url: string, { pid }: { pid: number }) => {
    for (let i = 0; i < PHOTOS; i++) await addPhoto(url);
    const begin = performance.now();
    const before = heldMb(pid);
    const answer = await fetch(`${url}/api/jobs/${auger}/bundle`);
    let first = 0;
    let most = before;
    let bytes = 0;
    for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
      first ||= performance.now() - begin;
      bytes += part.length;
      most = Math.max(most, heldMb(pid));
    }
    const took = (performance.now() - begin) / 1000;
    const mb = bytes / 1e6;
    if (mb < (PHOTOS * PHOTO_BYTES) / 1e6) throw new Error(`the bundle has only ${mb} MB`);
    return [
      {
        what: `bundle with ${PHOTOS} photos of ${PHOTO_BYTES / 1e6} MB, streamed: held by the server meanwhile`,
        measured: `+ ${(most - before).toFixed(0)} MB`,
        budget: `≤ ${MOST_MB} MB`,
        ok: most - before <= MOST_MB,
      },
      {
        what: '  until its first byte, and whole',
        measured: `${first.toFixed(0)} ms, ${took.toFixed(1)} s (${(mb / took).toFixed(0)} MB/s)`,
        budget: '–',
        ok: null,
      },
    ];
  });
}

async function addPhoto(url: string): Promise<void> {
  const body = randomBytes(PHOTO_BYTES);
  const sha256 = createHash('sha256').update(body).digest('hex');
  await fetch(`${url}/api/files/${sha256}`, {
    method: 'PUT',
    headers: { 'content-type': 'image/jpeg' },
    body: new Uint8Array(body),
  });
  const piece: Partial<Evidence> = {
    id: randomUUID(),
    jobId: auger,
    jobRevision: 0,
    kind: 'attachment',
    subject: 'supply.line',
    body: { sha256, name: 'p.jpg', type: 'image/jpeg', bytes: body.length },
    author: { name: 'bench', role: '' },
    atClient: new Date().toISOString(),
    coreVersion: 'bench',
  };
  const answer = await fetch(`${url}/api/jobs/${auger}/evidence`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify([piece]),
  });
  if (!answer.ok) throw new Error(await answer.text());
}
