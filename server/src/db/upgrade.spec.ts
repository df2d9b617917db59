import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { DataSource } from 'typeorm';
import * as v from 'valibot';
import {
  changeHash,
  hashOf,
  jobSchema,
  upgradeJob,
  verifyEvidence,
  type Evidence,
  type Job,
} from '@tactron/core/job';
import { seedProfiles } from '../catalogue/routes.js';
import { createApp } from '../http/app.js';
import { JobEvents } from '../http/events.js';
import { author, newJob, reading } from '../testing/samples.js';
import { cluster, freshUrls, type Urls } from '../testing/cluster.js';
import { createDataSource, migrations } from './data-source.js';
import { upgrade, type DumpPlace } from './upgrade.js';

/** Runs on a database of its own and gives it back. */
async function onDatabase<T>(urls: Urls, act: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: urls.ownerUrl });
  await client.connect();
  try {
    return await act(client);
  } finally {
    await client.end();
  }
}

describe('starting on what is there', () => {
  const folder = mkdtempSync(join(tmpdir(), 'tactron dumps '));
  let place: DumpPlace;
  beforeAll(async () => (place = { pgBin: (await cluster()).bin, folder }));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const dumps = (): string[] => readdirSync(folder);

  /** A data folder as the release of one migration left it: a job with two changes and evidence, another never changed. */
  async function firstRelease(): Promise<{ urls: Urls; jobs: Job[] }> {
    const urls = await freshUrls('tactron_old');
    const old = await new DataSource({
      type: 'postgres',
      url: urls.ownerUrl,
      migrations: [migrations[0]],
      entities: [],
    }).initialize();
    await old.runMigrations();
    const siteId = randomUUID();
    await old.query(`INSERT INTO site (id, name) VALUES ($1, 'Old hall')`, [siteId]);
    const jobs = ['fm-auger', 'fm-drum-1'].map((name) => {
      const place = new URL(
        `../../../core/job/fixtures/format-1/${name}.tactron.json`,
        import.meta.url,
      );
      const file = JSON.parse(readFileSync(place, 'utf8')) as { job: Job };
      return { ...file.job, siteId };
    });
    for (const [i, job] of jobs.entries())
      await old.query(
        `INSERT INTO job (id, site_id, tag, machine, family, document, revision) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
        [
          job.id,
          siteId,
          job.tag,
          job.machine,
          job.profile.family,
          JSON.stringify(job),
          i === 0 ? 2 : 0,
        ],
      );
    for (const revision of [1, 2])
      await old.query(
        `INSERT INTO job_change (id, job_id, revision, patch, author, at_client, prev_hash, hash) VALUES ($1, $2, $3, $4, $5, now(), $6, $7)`,
        [
          randomUUID(),
          jobs[0].id,
          revision,
          JSON.stringify([{ op: 'replace', path: '/tag', value: `OLD-${revision}` }]),
          JSON.stringify(author),
          revision === 1 ? '' : 'h1',
          `h${revision}`,
        ],
      );
    await old.destroy();
    return { urls, jobs };
  }

  it('of an older release makes a dump first, migrates, and opens every job with a history that can be gone back to', async () => {
    const { urls, jobs } = await firstRelease();
    const before = dumps().length;
    const result = await upgrade(urls.ownerUrl, place);
    expect([result.ran, result.unreadable, dumps().length - before]).toEqual([
      migrations.slice(1).map((m) => m.name),
      [],
      1,
    ]);
    expect(statSync(result.dump as string).size).toBeGreaterThan(1000);
    const db = await createDataSource(urls.appUrl, 3).initialize();
    await seedProfiles(db);
    const events = new JobEvents(urls.appUrl);
    const server = createServer(createApp({ db, events }));
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const ask = async (path: string) =>
      (
        await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/api/jobs/${path}`)
      ).json() as Promise<{ job: Job; revision: number } & Job>;
    for (const [i, job] of jobs.entries()) {
      const now = await ask(job.id);
      const upgraded = upgradeJob(job) as Job;
      expect([upgraded.version, hashOf(now.job), now.revision]).toEqual([
        2,
        hashOf(upgraded),
        i === 0 ? 4 : 2,
      ]);
      expect(v.safeParse(jobSchema, now.job).success).toBe(true);
      expect(hashOf(await ask(`${job.id}/at/${now.revision}`))).toBe(hashOf(upgraded));
      // The checkpoint before it still holds the first format, and is shown in this one.
      expect(hashOf(await ask(`${job.id}/at/${now.revision - 1}`))).toBe(hashOf(upgraded));
    }
    const [checkpoint] = await db.query(
      `SELECT id, patch, author, at_client, prev_hash, hash FROM job_change WHERE job_id = $1 AND kind = 'checkpoint' ORDER BY revision`,
      [jobs[0].id],
    );
    const chained = {
      id: checkpoint.id as string,
      jobId: jobs[0].id,
      revision: 3,
      patch: checkpoint.patch as never,
      author: checkpoint.author as never,
      atClient: (checkpoint.at_client as Date).toISOString(),
    };
    expect([checkpoint.prev_hash, checkpoint.hash]).toEqual(['h2', changeHash('h2', chained)]);
    await events.close();
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    await db.destroy();
  });

  it('of this release changes nothing and makes no dump; on nothing it makes the tables and no dump', async () => {
    const urls = await freshUrls('tactron_new');
    const before = dumps().length;
    expect((await upgrade(urls.ownerUrl, place)).ran).toEqual(migrations.map((m) => m.name));
    expect(await upgrade(urls.ownerUrl, place)).toEqual({ ran: [], unreadable: [] });
    expect(dumps().length).toBe(before);
  });

  it('of a newer release stops, says what to do, and changes nothing', async () => {
    const urls = await freshUrls('tactron_newer');
    await upgrade(urls.ownerUrl, place);
    await onDatabase(urls, (client) =>
      client.query(
        `INSERT INTO migrations (timestamp, name) VALUES (1999000000000, 'Later1999000000000')`,
      ),
    );
    await expectAsync(upgrade(urls.ownerUrl, place)).toBeRejectedWithError(
      /newer release[\s\S]+Later1999000000000[\s\S]+restore/u,
    );
  });

  it('of an older release is left as it is when the dump cannot be made', async () => {
    const { urls } = await firstRelease();
    await expectAsync(upgrade(urls.ownerUrl, { pgBin: '/nowhere', folder })).toBeRejectedWithError(
      /could not be made, so nothing was changed/u,
    );
    await expectAsync(upgrade(urls.ownerUrl)).toBeRejectedWithError(/npm start/u);
    const { rows } = await onDatabase(urls, (client) =>
      client.query<{ name: string }>('SELECT name FROM migrations'),
    );
    expect(rows.map((r) => r.name)).toEqual([migrations[0].name]);
  });

  it('names jobs that do not fit, and keeps them', async () => {
    const { urls, jobs } = await firstRelease();
    await onDatabase(urls, (client) =>
      client.query(`UPDATE job SET document = document || '{"practice": "none"}' WHERE id = $1`, [
        jobs[1].id,
      ]),
    );
    expect((await upgrade(urls.ownerUrl, place)).unreadable).toEqual([
      { id: jobs[1].id, path: 'practice' },
    ]);
  });

  it('of another PostgreSQL version stops with what to do', async () => {
    const { startPostgres } = await import('../../../scripts/lib/postgres.mjs');
    const { mkdirSync, writeFileSync } = await import('node:fs');
    const name = 'pg-other-version';
    const own = (await cluster()).folder.replace(/pg-test$/u, name);
    mkdirSync(own, { recursive: true });
    writeFileSync(join(own, 'PG_VERSION'), '9\n');
    writeFileSync(`${own}-secrets.json`, '{"owner":"x","app":"x","session":"x"}');
    await expectAsync(startPostgres(name)).toBeRejectedWithError(
      /belong to PostgreSQL 9[\s\S]+Install postgresql-9, or restore a backup/u,
    );
    rmSync(own, { recursive: true });
    rmSync(`${own}-secrets.json`);
  });
});

describe('backup and restore', () => {
  it('brings back every job, change and piece of evidence, and who may not change them', async () => {
    const postgres = await cluster();
    const { backup, restore } = await import('../../../scripts/lib/backup.mjs');
    const folder = mkdtempSync(join(tmpdir(), 'tactron backup '));
    const urls = await freshUrls('tactron_drill');
    await upgrade(urls.ownerUrl);
    const job = newJob(randomUUID());
    const chain: Evidence[] = [];
    const db = await createDataSource(urls.appUrl, 2).initialize();
    const { insertEvidence, evidenceOf } = await import('../evidence/store.js');
    await db.query(
      `INSERT INTO job (id, site_id, tag, machine, family, document) VALUES ($1, $2, 'DRILL', '', 'x', $3)`,
      [job.id, job.siteId, JSON.stringify(job)],
    );
    chain.push(
      ...(await db.transaction((tx) =>
        insertEvidence(tx, job.id, [reading(job.id), reading(job.id)], {
          clockAheadS: 0,
          accountId: null,
          author: null,
        }),
      )),
    );
    await db.destroy();
    const file = backup(postgres, join(folder, 'a.dump'), urls.ownerUrl) as string;

    await expectAsync(restore(postgres, file, { database: 'tactron_drill' })).toBeRejectedWithError(
      /holds 1 jobs[\s\S]+--replace/u,
    );
    await expectAsync(
      restore(postgres, join(folder, 'none.dump'), { replace: true, database: 'tactron_drill' }),
    ).toBeRejectedWithError(/no backup at/u);
    const { writeFileSync, readFileSync } = await import('node:fs');
    writeFileSync(join(folder, 'text.dump'), 'not a backup');
    writeFileSync(
      join(folder, 'half.dump'),
      readFileSync(file).subarray(0, Math.floor(statSync(file).size * 0.9)),
    );
    for (const bad of ['text.dump', 'half.dump'])
      await expectAsync(
        restore(postgres, join(folder, bad), { replace: true, database: 'tactron_drill' }),
      ).toBeRejectedWithError(/left as it (is|was)/u);

    await onDatabase(urls, (client) =>
      client.query('TRUNCATE evidence, job, job_change, job_found_by'),
    );
    expect(await restore(postgres, file, { database: 'tactron_drill' })).toEqual({
      count: 1,
      before: undefined,
    });
    const again = await createDataSource(urls.appUrl, 2).initialize();
    const there = await evidenceOf(again, job.id);
    expect([hashOf(there), verifyEvidence(there).ok]).toEqual([hashOf(chain), true]);
    await expectAsync(again.query('UPDATE evidence SET why = NULL')).toBeRejectedWithError(
      /permission denied/u,
    );
    await expectAsync(again.query('DELETE FROM job_change')).toBeRejectedWithError(
      /permission denied/u,
    );
    await again.destroy();
    expect((await upgrade(urls.ownerUrl)).ran).toEqual([]);
    rmSync(folder, { recursive: true });
  }, 30_000);
});
