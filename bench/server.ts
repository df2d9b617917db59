import { randomUUID } from 'node:crypto';
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import type { Job } from '@tactron/core/job';
import { withDemo } from '../scripts/lib/testbed.mjs';
import { median, p95, type Row } from './measure';

const root = process.cwd();
const row = (what: string, x: number, budget: number): Row => ({
  what,
  measured: `${x.toFixed(1)} ms`,
  budget: `≤ ${budget} ms`,
  ok: x <= budget,
});

async function timed(runs: number, act: (i: number) => Promise<unknown>): Promise<number[]> {
  const list: number[] = [];
  for (let i = 0; i < runs; i++) {
    const begin = performance.now();
    await act(i);
    list.push(performance.now() - begin);
  }
  return list;
}

/** Board of 10,000 jobs, saving at 50 users, start of an installed copy. */
export async function serverRows(): Promise<Row[]> {
  const rows: Row[] = await withDemo(
    'tactron_bench',
    async (url: string, { urls }: { urls: { appUrl: string; ownerUrl: string } }) => {
      const job = (
        JSON.parse(readFileSync(join(root, 'demo/fm-auger.tactron.json'), 'utf8')) as { job: Job }
      ).job;
      const owner = new pg.Client({ connectionString: urls.ownerUrl });
      await owner.connect();
      await owner.query(
        `INSERT INTO job (id, site_id, tag, machine, family, document)
       SELECT gen_random_uuid(), site_id, 'G-' || lpad(n::text, 5, '0'), 'machine ' || (n * 7919 % 997), family, document - 'adopted' FROM job, generate_series(1, 10000) n WHERE id = $1`,
        [job.id],
      );
      await owner.query('ANALYZE');
      const queries = [
        'search=G-0',
        'search=machine%2012',
        `site=${job.siteId}&page=40`,
        'search=G-09999',
        'page=3',
      ];
      const ask = (i: number): Promise<unknown> =>
        fetch(`${url}/api/jobs?${queries[i % queries.length]}`).then((r) => r.json());
      await timed(10, ask);
      // Turn about, so that whatever else the machine does falls on both.
      const [board, bare]: number[][] = [[], []];
      for (let i = 0; i < 150; i++) {
        board.push(...(await timed(1, () => ask(i))));
        bare.push(...(await timed(1, () => bareBoard(owner, job.siteId, i))));
      }
      await owner.end();
      const save = await saves(url, job);
      return [
        row('jobs board of 10,000, 95th percentile', p95(board), 30),
        {
          what: '  median against the same statements alone through the driver',
          measured: `${(median(board) / median(bare)).toFixed(2)} ×`,
          budget: '≤ 1.3 ×',
          ok: median(board) / median(bare) <= 1.3,
        },
        row('save of one change at 50 users, 95th percentile', save, 30),
      ];
    },
  );
  const start = await startUp();
  return [
    ...rows,
    {
      what: '`npm start` when installed and built, to the first answer',
      measured: `${(start / 1000).toFixed(1)} s`,
      budget: '≤ 8 s',
      ok: start <= 8000,
    },
  ];
}

/** What the board asks of the database for the same five searches, without server, mapper and HTTP: count, page, rows. */
async function bareBoard(client: pg.Client, siteId: string, n: number): Promise<void> {
  const like = ['%G-0%', '%machine 12%', undefined, '%G-09999%', undefined][n % 5];
  const offset = [0, 0, 960, 0, 72][n % 5];
  const where = like
    ? `NOT archived AND (tag ILIKE $1 OR machine ILIKE $1)`
    : n % 5 === 2
      ? 'NOT archived AND site_id = $1'
      : 'NOT archived';
  const values = like ? [like] : n % 5 === 2 ? [siteId] : [];
  await client.query(`SELECT count(*) FROM job WHERE ${where}`, values);
  const page = await client.query<{ id: string }>(
    `SELECT id FROM job WHERE ${where} ORDER BY tag, id OFFSET ${offset} LIMIT 24`,
    values,
  );
  await client.query(
    `SELECT id, site_id, revision, updated_at, tag, machine, document->'profile', document->'plate', document->'scheme', document->>'practice', jsonb_exists(document, 'adopted'),
            (SELECT count(*)::int FROM evidence e WHERE e.job_id = j.id) FROM job j WHERE id = ANY($1) ORDER BY tag, id`,
    [page.rows.map((r) => r.id)],
  );
}

/** 50 people, each on a job of their own, a change every two seconds. */
async function saves(url: string, job: Job): Promise<number> {
  const post = (path: string, body: unknown) =>
    fetch(`${url}/api/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const ids = Array.from({ length: 50 }, () => randomUUID());
  for (const id of ids) await post('jobs', { job: { ...job, id } });
  const list: number[] = [];
  await Promise.all(
    ids.map(async (id, user) => {
      await new Promise((done) => setTimeout(done, user * 40));
      for (let base = 0; base < 6; base++) {
        const change = {
          id: randomUUID(),
          base,
          patch: [{ op: 'replace', path: '/machine', value: `m${base}` }],
          author: { name: 'bench', role: '' },
          atClient: new Date().toISOString(),
        };
        const begin = performance.now();
        const answer = await post(`jobs/${id}/changes`, change);
        list.push(performance.now() - begin);
        if (!answer.ok) throw new Error(await answer.text());
        await new Promise((done) => setTimeout(done, 2000));
      }
    }),
  );
  return p95(list);
}

function startUp(): Promise<number> {
  const begin = performance.now();
  const child = spawn('npm', ['start'], {
    cwd: root,
    env: { ...process.env, TACTRON_PORT: '4610' },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  return new Promise((done, fail) => {
    child.stdout.on('data', (data: Buffer) => {
      if (!data.toString().includes('Tactron is at')) return;
      const took = performance.now() - begin;
      child.once('close', () => done(took));
      process.kill(-(child.pid as number), 'SIGINT');
    });
    child.once('error', fail);
  });
}
