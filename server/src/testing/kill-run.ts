import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { Job } from '@tactron/core/job';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { serve } from '../../../scripts/lib/serve.mjs';
import { freshDatabase } from '../../../scripts/lib/testbed.mjs';
import { author, newJob } from './samples.js';

interface Running {
  readonly port: number;
  readonly child: {
    readonly exitCode: number | null;
    kill(signal: string): void;
    once(event: 'exit', then: () => void): void;
  };
  stop(): Promise<void>;
}
interface Cluster {
  readonly pid: number;
  stop(): void;
}

/** What came of a run under kills. */
export interface KillReport {
  readonly serverKills: number;
  readonly databaseKills: number;
  /** Times the server ended by itself: it must outlive its database. */
  readonly diedAlone: number;
  readonly acknowledged: number;
  /** Acknowledged changes that are not there. */
  readonly lost: number;
  /** Changes that are there twice, or jobs whose document is not what their changes make. */
  readonly wrong: number;
}

const sleep = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/**
 * Lets clients save all the time, each on a job of its own, while server and database are killed without warning and started
 * again; then compares what was acknowledged with what is there.
 */
export async function killRun(
  servers: number,
  databases: number,
  clients = 50,
): Promise<KillReport> {
  const name = 'pg-kill';
  const start = async () =>
    (await startPostgres(name, { port: 5890 })) as Cluster & Parameters<typeof serve>[0];
  let postgres = await start();
  const urls = (await freshDatabase(postgres, 'tactron_kill')) as {
    appUrl: string;
    ownerUrl: string;
  };
  const begin = () =>
    serve(postgres, { port: 4650, quiet: true, urls, silent: true }) as Promise<Running>;
  let server = await begin();
  const base = `http://127.0.0.1:${server.port}/api`;
  const jobs = await makeJobs(base, clients);
  const acknowledged = new Map<string, string>();
  let over = false;
  const working = jobs.map((job, i) => client(base, job, i, acknowledged, () => over));
  let [serverKills, databaseKills, diedAlone] = [0, 0, 0];
  const every = databases ? Math.max(1, Math.round(servers / databases)) : Infinity;
  for (let n = 1; n <= servers; n++) {
    await sleep(80 + ((n * 7919) % 300));
    if (n % every === 0 && databaseKills < databases) {
      process.kill(postgres.pid, 'SIGKILL');
      databaseKills++;
      await sleep(50);
      postgres = await start();
      await sleep(100);
    }
    if (server.child.exitCode !== null) diedAlone++;
    else {
      const gone = new Promise<void>((done) => server.child.once('exit', done));
      server.child.kill('SIGKILL');
      await gone;
      serverKills++;
    }
    server = await begin();
  }
  await sleep(300);
  over = true;
  await Promise.all(working);
  await server.stop();
  const verdict = await compare(urls.ownerUrl, jobs, acknowledged);
  postgres.stop();
  return { serverKills, databaseKills, diedAlone, acknowledged: acknowledged.size, ...verdict };
}

async function makeJobs(base: string, count: number): Promise<Job[]> {
  const post = (path: string, body: unknown) =>
    fetch(`${base}/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const site = { id: randomUUID(), name: 'Kill hall' };
  await post('sites', site);
  const jobs = Array.from({ length: count }, (_, i) => newJob(site.id, `K-${i}`));
  for (const job of jobs) await post('jobs', { job, author });
  return jobs;
}

/** Saves one change after the other, each until it is answered, as a browser does. */
async function client(
  base: string,
  job: Job,
  who: number,
  acknowledged: Map<string, string>,
  over: () => boolean,
): Promise<void> {
  for (let revision = 0; !over();) {
    const id = randomUUID();
    const body = JSON.stringify({
      id,
      base: revision,
      patch: [{ op: 'replace', path: '/machine', value: `${who}.${revision + 1}` }],
      author,
      atClient: new Date().toISOString(),
    });
    for (;;) {
      const answer = await fetch(`${base}/jobs/${job.id}/changes`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      }).catch(() => undefined);
      if (answer?.status === 200) {
        acknowledged.set(id, job.id);
        revision = (
          (await answer.json().catch(() => ({ revision: revision + 1 }))) as { revision: number }
        ).revision;
        break;
      }
      if (answer && ![503, 507].includes(answer.status))
        throw new Error(`a save was answered with ${answer.status}: ${await answer.text()}`);
      if (over()) return;
      await sleep(30);
    }
    await sleep(20);
  }
}

async function compare(
  ownerUrl: string,
  jobs: readonly Job[],
  acknowledged: ReadonlyMap<string, string>,
): Promise<{ lost: number; wrong: number }> {
  const db = new pg.Client({ connectionString: ownerUrl });
  await db.connect();
  const { rows } = await db.query<{
    id: string;
    job_id: string;
    revision: number;
    hash: string;
    prev_hash: string;
  }>(`SELECT id, job_id, revision, hash, prev_hash FROM job_change ORDER BY job_id, revision`);
  const documents = await db.query<{ id: string; machine: string; revision: number }>(
    `SELECT id, document->>'machine' AS machine, revision FROM job`,
  );
  await db.end();
  const there = new Set(rows.map((r) => r.id));
  const lost = [...acknowledged.keys()].filter((id) => !there.has(id)).length;
  let wrong = rows.length - there.size;
  for (const [who, job] of jobs.entries()) {
    const own = rows.filter((r) => r.job_id === job.id);
    const now = documents.rows.find((d) => d.id === job.id);
    const chained = own.every(
      (r, i) => r.revision === i && r.prev_hash === (own[i - 1]?.hash ?? ''),
    );
    const expected = own.length > 1 ? `${who}.${own.length - 1}` : job.machine;
    if (!chained || now?.revision !== own.length - 1 || now.machine !== expected) wrong++;
  }
  return { lost, wrong };
}
