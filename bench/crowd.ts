import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import type { Evidence, Job } from '@tactron/core/job';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { serve } from '../scripts/lib/serve.mjs';
import { freshDatabase } from '../scripts/lib/testbed.mjs';
import { loadDemo } from '../scripts/lib/demo.mjs';
import { median, p95, type Row } from './measure';

const author = { name: 'bench', role: '' };
const PICTURES = 60;
const PICTURE_BYTES = 11_900_000;

interface Server {
  readonly url: string;
  readonly child: { readonly pid: number };
  stop(): Promise<void>;
}
interface Answer {
  readonly status: number;
  readonly body: { revision: number; since?: unknown[]; proof?: string; evidence?: number };
}

/** Many on one job, a job that was changed ten thousand times, and a job with sixty pictures. */
export async function crowdRows(): Promise<Row[]> {
  const postgres = await startPostgres('pg-test');
  const urls = (await freshDatabase(postgres, 'tactron_bench_crowd')) as { ownerUrl: string };
  const server = (await serve(postgres, {
    port: 4630,
    quiet: true,
    urls,
  } as never)) as unknown as Server;
  try {
    await loadDemo(server.url);
    return [
      ...(await writers(server)),
      ...(await farHistory(server)),
      ...(await pictures(server, urls.ownerUrl)),
    ];
  } finally {
    await server.stop();
    postgres.stop();
  }
}

async function post({ url }: Server, path: string, body: unknown): Promise<Answer> {
  const answer = await fetch(`${url}/api/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return { status: answer.status, body: (await answer.json()) as Answer['body'] };
}

async function newJob(server: Server): Promise<Job> {
  const { job } = JSON.parse(readFileSync('demo/fm-auger.tactron.json', 'utf8')) as { job: Job };
  const made = { ...job, id: randomUUID() };
  const { status } = await post(server, 'jobs', { job: made });
  if (status !== 201) throw new Error(`the job was not made: ${status}`);
  return made;
}

/** Saves one change until it is in, on what the answers say the job is now. @returns revision, refusals on the way */
async function save(
  server: Server,
  jobId: string,
  base: number,
  path: string,
  value: unknown,
): Promise<{ revision: number; refused: number }> {
  const id = randomUUID();
  for (let refused = 0; ; refused++) {
    const patch = [{ op: 'add', path, value }];
    const change = { id, base, patch, author, atClient: new Date().toISOString() };
    const { status, body } = await post(server, `jobs/${jobId}/changes`, change);
    if (status === 200) return { revision: body.revision, refused };
    if (status !== 412) throw new Error(`a save was answered with ${status}`);
    base = body.revision;
  }
}

/** Thirty people on one job; a third of them at the same field. */
async function writers(server: Server): Promise<Row[]> {
  const { id } = await newJob(server);
  const times: number[] = [];
  let refusals = 0;
  await Promise.all(
    Array.from({ length: 30 }, async (_, who) => {
      let base = 0;
      for (let n = 0; n < 8; n++) {
        const shared = who % 3 === 0;
        const path = shared ? '/machine' : `/scripts/w${who}`;
        const value = shared ? `m${who}.${n}` : { ord: n, name: `s${n}`, acts: [] };
        const begin = performance.now();
        const { revision, refused } = await save(server, id, base, path, value);
        times.push(performance.now() - begin);
        refusals += refused;
        base = revision;
      }
    }),
  );
  const each = refusals / times.length;
  const late = p95(times);
  return [
    {
      what: '30 writers on one job, 240 saves: until it is in, 95th percentile',
      measured: `${(late / 1000).toFixed(2)} s`,
      budget: '≤ 2 s',
      ok: late <= 2000,
    },
    {
      what: '  refusals a save',
      measured: each.toFixed(2),
      budget: '≤ 3',
      ok: each <= 3,
    },
  ];
}

/** What opening asks of the server, for a job that was changed ten thousand times and for one that never was. */
async function farHistory(server: Server): Promise<Row[]> {
  const [plain, changed] = [await newJob(server), await newJob(server)];
  let at = 0;
  await Promise.all(
    Array.from({ length: 20 }, async (_, who) => {
      for (let n = 0; n < 500; n++)
        at = Math.max(
          at,
          (await save(server, changed.id, at, `/scripts/w${who}`, { ord: n, name: 's', acts: [] }))
            .revision,
        );
    }),
  );
  const open = async ({ id }: Job): Promise<number> => {
    const begin = performance.now();
    await Promise.all(
      ['', '/evidence?after=0&hash=', '/history?size=50'].map(async (path) =>
        (await fetch(`${server.url}/api/jobs/${id}${path}`)).json(),
      ),
    );
    return performance.now() - begin;
  };
  const [one, other]: number[][] = [[], []];
  for (let i = 0; i < 60; i++) {
    one.push(await open(plain));
    other.push(await open(changed));
  }
  const ratio = median(other) / median(one);
  return [
    {
      what: `opening a job of ${at} changes, against one of none`,
      measured: `${ratio.toFixed(2)} × (${median(other).toFixed(1)} ms)`,
      budget: '≤ 1.5 ×',
      ok: ratio <= 1.5,
    },
  ];
}

/** Highest memory of the server since `forgetPeak`, MB. */
const peakMb = ({ child }: Server): number =>
  Number(/VmHWM:\s+(\d+)/u.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1]) / 1000;
const forgetPeak = ({ child }: Server): void => writeFileSync(`/proc/${child.pid}/clear_refs`, '5');

/** Sixty pictures of 12 MB go out as a bundle and come back. */
async function pictures(server: Server, ownerUrl: string): Promise<Row[]> {
  const job = await newJob(server);
  const hashes: string[] = [];
  for (let n = 0; n < PICTURES; n++) {
    const body = randomBytes(PICTURE_BYTES);
    const sha256 = createHash('sha256').update(body).digest('hex');
    hashes.push(sha256);
    await fetch(`${server.url}/api/files/${sha256}`, {
      method: 'PUT',
      headers: { 'content-type': 'image/jpeg' },
      body: new Uint8Array(body),
    });
    const piece = {
      id: randomUUID(),
      jobId: job.id,
      jobRevision: 0,
      kind: 'attachment',
      subject: 'supply.line',
      body: { sha256, name: `${n}.jpg`, type: 'image/jpeg', bytes: body.length },
      author,
      atClient: new Date().toISOString(),
      coreVersion: '0.1.0',
    };
    await post(server, `jobs/${job.id}/evidence`, [piece]);
  }
  const ends = async (): Promise<string | undefined> =>
    ((await (await fetch(`${server.url}/api/jobs/${job.id}/evidence`)).json()) as Evidence[]).at(-1)
      ?.hash;
  const hash = await ends();
  forgetPeak(server);
  const before = peakMb(server);
  const file = join(tmpdir(), `tactron-bench-${process.pid}.zip`);
  try {
    let begin = performance.now();
    const bundle = await fetch(`${server.url}/api/jobs/${job.id}/bundle`);
    await pipeline(Readable.fromWeb(bundle.body as never), createWriteStream(file));
    const out = performance.now() - begin;
    const owner = new pg.Client({ connectionString: ownerUrl });
    await owner.connect();
    for (const table of ['evidence', 'job_change'])
      await owner.query(`DELETE FROM ${table} WHERE job_id = $1`, [job.id]);
    await owner.query(`DELETE FROM job WHERE id = $1`, [job.id]);
    await owner.query(`DELETE FROM blob WHERE sha256 = ANY($1)`, [hashes]);
    begin = performance.now();
    const answer = await fetch(`${server.url}/api/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: Readable.toWeb(createReadStream(file)) as never,
      duplex: 'half',
    } as RequestInit);
    const back = performance.now() - begin;
    const { rows } = await owner.query<{ n: number }>(
      'SELECT count(*)::int AS n FROM blob WHERE sha256 = ANY($1)',
      [hashes],
    );
    await owner.end();
    const same = answer.status === 201 && rows[0].n === PICTURES && (await ends()) === hash;
    const more = peakMb(server) - before;
    return [
      {
        what: `${PICTURES} pictures of 12 MB out (${(out / 1000).toFixed(1)} s) and back (${(back / 1000).toFixed(1)} s), the same`,
        measured: same ? 'the same' : `not the same (${answer.status})`,
        budget: 'the same',
        ok: same,
      },
      {
        what: '  memory of the server for it, above what it had before',
        measured: `${more.toFixed(0)} MB`,
        budget: '≤ 250 MB',
        ok: more <= 250,
      },
    ];
  } finally {
    rmSync(file, { force: true });
  }
}
