import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { apiPage } from '../../scripts/lib/api-page.mjs';
import pg from 'pg';
import {
  changeHash,
  evidenceHash,
  hashOf,
  verifyEvidence,
  type Evidence,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { EvidenceRow, JobChangeRow } from './db/entities.js';
import {
  author,
  change,
  madeJob,
  madeSite,
  newJob,
  reading,
  replace,
  sampleProfile as profile,
} from './testing/samples.js';
import { databaseUrls, openBed, type Bed } from './testing/testbed.js';

let bed: Bed;
let siteId: string;

const made = (tag?: string) => madeJob(bed, siteId, tag);

describe('server', () => {
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  it('has the schema its migrations say, and nothing to add', async () => {
    const { createDataSource } = await import('./db/data-source.js');
    const owner = await createDataSource(databaseUrls().owner, 1).initialize();
    const log = await owner.driver.createSchemaBuilder().log();
    await owner.destroy();
    expect(log.upQueries.map((q) => q.query)).toEqual([]);
  });

  it('cannot change or remove evidence and history in its own role', async () => {
    const client = new pg.Client({ connectionString: databaseUrls().app });
    await client.connect();
    for (const table of ['evidence', 'job_change']) {
      for (const sql of [
        `UPDATE ${table} SET job_id = job_id`,
        `DELETE FROM ${table}`,
        `TRUNCATE ${table}`,
      ]) {
        await expectAsync(client.query(sql))
          .withContext(sql)
          .toBeRejectedWithError(/permission denied/u);
      }
    }
    await client.end();
  });

  describe('changes', () => {
    it('are applied in order, chained by hash', async () => {
      const job = await made();
      const sent = [change(0, replace('/tag', 'S-2')), change(1, replace('/machine', 'grader'))];
      for (const c of sent)
        expect((await bed.ask('POST', `jobs/${job.id}/changes`, c)).status).toBe(200);
      const { body } = await bed.ask('GET', `jobs/${job.id}`);
      expect([body['revision'], (body['job'] as Job).tag, (body['job'] as Job).machine]).toEqual([
        2,
        'S-2',
        'grader',
      ] as never[]);
      const rows = await bed.db
        .getRepository(JobChangeRow)
        .find({ where: { jobId: job.id }, order: { revision: 'ASC' } });
      const begun = {
        id: rows[0].id,
        jobId: job.id,
        revision: 0,
        patch: [{ op: 'replace' as const, path: '', value: job }],
        author,
        atClient: rows[0].atClient.toISOString(),
      };
      let prev = '';
      [begun, ...sent.map((c, i) => ({ ...c, jobId: job.id, revision: i + 1 }))].forEach((c, i) => {
        const told = { ...c, formula: 2 as const, sentBy: null };
        expect([rows[i].prevHash, rows[i].hash]).toEqual([prev, changeHash(prev, told)]);
        prev = rows[i].hash;
      });
    });

    it('sent again get the original answer and are not applied twice', async () => {
      const job = await made();
      const first = change(0, [{ op: 'add', path: '/plate/load/name', value: 'x' }]);
      const second = change(1, replace('/plate/load/name', 'y'));
      for (const c of [first, second, first, second, first])
        expect((await bed.ask('POST', `jobs/${job.id}/changes`, c)).status).toBe(200);
      const { body } = await bed.ask('GET', `jobs/${job.id}`);
      expect([body['revision'], (body['job'] as Job).plate.load.name]).toEqual([2, 'y'] as never[]);
    });

    it('on an old revision go in where they touch nothing that was changed since, else hear what was', async () => {
      const job = await made();
      const send = (c: unknown) => bed.ask('POST', `jobs/${job.id}/changes`, c);
      await send(change(0, replace('/tag', 'NEW')));
      const beside = change(0, replace('/machine', 'mill for bark'));
      const expected = {
        revision: 2,
        since: [jasmine.objectContaining({ revision: 1, patch: replace('/tag', 'NEW') })],
      };
      // and the same answer when the first one was lost on its way
      for (let i = 0; i < 2; i++)
        expect(await send(beside)).toEqual(
          jasmine.objectContaining({ status: 200, body: expected as never }),
        );
      const stale = await send(change(0, replace('/tag', 'OLD')));
      expect([
        stale.status,
        stale.body['job'],
        stale.body['revision'],
        (stale.body['changes'] as unknown[]).length,
      ]).toEqual([412, undefined, 2, 2] as never[]);
      const { body } = await bed.ask('GET', `jobs/${job.id}`);
      expect([(body['job'] as Job).tag, (body['job'] as Job).machine]).toEqual([
        'NEW',
        'mill for bark',
      ]);
    });

    it('whose patch no longer fits what others made of the job are told so and not forced in', async () => {
      const job = await made();
      const send = (c: unknown) => bed.ask('POST', `jobs/${job.id}/changes`, c);
      await send(change(0, [{ op: 'add', path: '/plate/load/name', value: 'x' }]));
      const twin = await send(
        change(0, [{ op: 'test', path: '/plate/load/name', value: 'y' }, ...replace('/tag', 'T')]),
      );
      expect(twin.status).toBe(412);
    });

    it('with the id of a change of another job are refused, and say nothing of it', async () => {
      const [one, two] = [await made(), await made()];
      const c = change(0, replace('/tag', 'ONE'));
      await bed.ask('POST', `jobs/${one.id}/changes`, c);
      for (let i = 0; i < 2; i++) {
        const { status, body } = await bed.ask('POST', `jobs/${two.id}/changes`, c);
        expect([status, body['type']]).toEqual([409, 'urn:tactron:problem:changeTaken'] as never);
      }
      expect((await bed.ask('GET', `jobs/${two.id}`)).body['revision']).toBe(0 as never);
    });

    it('by more than are told at once ask for the document', async () => {
      const job = await made();
      await bed.db.query('UPDATE job SET revision = 6000 WHERE id = $1', [job.id]);
      const { status, body } = await bed.ask(
        'POST',
        `jobs/${job.id}/changes`,
        change(0, replace('/tag', 'X')),
      );
      expect([status, body['tooFar'], body['behind'], body['changes']]).toEqual([
        412,
        true,
        6000,
        undefined,
      ] as never);
    });

    it('at the same moment: one goes in, the others hear of it', async () => {
      const job = await made();
      const answers = await Promise.all(
        Array.from({ length: 12 }, (_, i) =>
          bed.ask('POST', `jobs/${job.id}/changes`, change(0, replace('/tag', `T${i}`))),
        ),
      );
      expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(11).fill(412)]);
    });

    it('that do not fit are refused with their path, and nothing is stored', async () => {
      const job = await made();
      const refused = async (patch: Operation[]) => {
        const { status, body, type } = await bed.ask(
          'POST',
          `jobs/${job.id}/changes`,
          change(0, patch),
        );
        expect(type).toContain('application/problem+json');
        return `${status} ${String(body['path'])}`;
      };
      expect(await refused(replace('/plate/motor', { power: { v: 2, u: 'horses' } }))).toBe(
        '400 plate.motor.power.u',
      );
      expect(await refused(replace('/plate/nothing/here', 1))).toBe(
        '400 patch /plate/nothing/here',
      );
      expect(await refused(replace('/id', randomUUID()))).toBe('400 id');
      expect(await refused([{ op: 'test', path: '/tag', value: 'other' }])).toBe('400 patch /tag');
      expect((await bed.ask('GET', `jobs/${job.id}`)).body['revision']).toBe(0 as never);
    });

    it('are told to other windows by server-sent events', async () => {
      const job = await made();
      const stop = new AbortController();
      const stream = await fetch(`${bed.url}/api/jobs/${job.id}/events`, { signal: stop.signal });
      const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
      let text = '';
      const listening = (async () => {
        for (let part = await reader.read(); !part.done; part = await reader.read())
          text += new TextDecoder().decode(part.value);
      })().catch(() => undefined);
      // a listener whose connection was cut a moment ago hears of nothing until it is back: then the next change is told
      for (let base = 0; base < 40 && !text.includes('event: change'); base++) {
        await bed.ask(
          'POST',
          `jobs/${job.id}/changes`,
          change(base, replace('/tag', `HEARD ${base}`)),
        );
        await new Promise((done) => setTimeout(done, 100));
      }
      expect(text).toMatch(/event: change\nid: \d+\ndata: \{"revision":\d+\}/u);
      stop.abort();
      await listening;
    });
  });

  describe('evidence', () => {
    it('is kept in order, chained, once each however often it is sent', async () => {
      const job = await made();
      const list = [reading(job.id), reading(job.id), reading(job.id)];
      await bed.ask('POST', `jobs/${job.id}/evidence`, list.slice(0, 2));
      await bed.ask('POST', `jobs/${job.id}/evidence`, list);
      const rows = await bed.db
        .getRepository(EvidenceRow)
        .find({ where: { jobId: job.id }, order: { seq: 'ASC' } });
      expect(rows.map((r) => r.id)).toEqual(list.map((e) => e.id));
      let prev = '';
      rows.forEach((row, i) => {
        expect([row.prevHash, row.hash]).toEqual([
          prev,
          evidenceHash(prev, { ...list[i], atServer: row.atServer, formula: 2 }),
        ]);
        prev = row.hash;
      });
    });

    it('of another job or without a name is refused whole', async () => {
      const job = await made();
      for (const bad of [
        reading(randomUUID()),
        reading(job.id, { author: { name: ' ', role: '' } }),
      ]) {
        expect(
          (await bed.ask('POST', `jobs/${job.id}/evidence`, [reading(job.id), bad])).status,
        ).toBe(400);
      }
      expect((await bed.ask('GET', `jobs/${job.id}/evidence`)).body).toEqual([] as never);
    });

    it('that a later release made asks to wait for it, and nothing of the same sending is stored', async () => {
      const job = await made();
      const later = [
        reading(job.id, { kind: 'rumour' as never }),
        reading(job.id, { kind: 'handTick', body: { version: 9 } as never }),
      ];
      for (const e of later) {
        const answer = await bed.ask('POST', `jobs/${job.id}/evidence`, [reading(job.id), e]);
        expect([answer.status, answer.body['type']]).toEqual([
          409,
          'urn:tactron:problem:reload',
        ] as never);
      }
      expect((await bed.ask('GET', `jobs/${job.id}/evidence`)).body).toEqual([] as never);
    });

    it('may stand for several pieces, and goes out as it came in', async () => {
      const job = await made();
      const [one, two] = [reading(job.id), reading(job.id)];
      const both = reading(job.id, { supersedes: [one.id, two.id], why: 'the same line twice' });
      await bed.ask('POST', `jobs/${job.id}/evidence`, [one, two, both]);
      const there = (await bed.ask('GET', `jobs/${job.id}/evidence`)).body as never as Evidence[];
      expect([there[2].supersedes, verifyEvidence(there).ok]).toEqual([[one.id, two.id], true]);
    });
  });

  describe('files', () => {
    it('go out and come in again as the same job, and as a copy when it is here already', async () => {
      const job = await made();
      await bed.ask('POST', `jobs/${job.id}/evidence`, [reading(job.id)]);
      const file = (await bed.ask('GET', `jobs/${job.id}/file`)).body as Record<string, unknown>;
      const copied = await bed.ask('POST', 'import', file);
      expect([copied.status, copied.body['copied'] as boolean]).toEqual([201, true]);
      const { seal: _seal, ...bare } = file;
      const moved = { ...bare, job: { ...(file['job'] as Job), id: randomUUID() }, evidence: [] };
      const { body } = await bed.ask('POST', 'import', moved);
      expect(body['copied']).toBe(false as never);
      const { body: there } = await bed.ask('GET', `jobs/${String(body['id'])}`);
      expect(hashOf({ ...(there['job'] as Job), id: job.id })).toBe(hashOf(job));
    });

    it('of a newer version, with a false profile hash or a broken body are refused and nothing is stored', async () => {
      const job = newJob(siteId, 'X-1');
      const count = async () => Number((await bed.ask('GET', 'jobs?search=X-1')).body['total']);
      const before = await count();
      const envelope = { format: 'tactron-job', version: 2, job, profiles: {} };
      expect((await bed.ask('POST', 'import', { ...envelope, version: 9 })).body['type']).toBe(
        'urn:tactron:problem:newerFormat' as never,
      );
      expect(
        (await bed.ask('POST', 'import', { ...envelope, profiles: { ['0'.repeat(64)]: profile } }))
          .status,
      ).toBe(400);
      expect((await bed.ask('POST', 'import', '{"half')).body['type']).toBe(
        'urn:tactron:problem:notJson' as never,
      );
      expect(
        (await bed.ask('POST', 'import', { ...envelope, evidence: [{ id: 1 }] })).body['path'],
      ).toMatch(/^evidence\.0/u);
      expect(await count()).toBe(before);
    });
  });

  it('finds jobs by text, site and family, a page at a time, and treats % as text', async () => {
    const tag = `Q%${randomUUID().slice(0, 6)}`;
    await made(`${tag}-a`);
    const second = await made(`${tag}-b`);
    const total = async (query: string) =>
      Number((await bed.ask('GET', `jobs?${query}`)).body['total']);
    expect(await total(`search=${encodeURIComponent(tag)}`)).toBe(2);
    expect(await total(`search=${encodeURIComponent('%%')}`)).toBe(0);
    expect(await total(`search=${encodeURIComponent(tag)}&family=ondulet-n`)).toBe(0);
    expect(
      (
        (await bed.ask('GET', `jobs?search=${encodeURIComponent(tag)}&size=1&page=1`)).body[
          'rows'
        ] as { id: string }[]
      )[0].id,
    ).toBe(second.id);
    await bed.ask('POST', `jobs/${second.id}/archive`, { archived: true });
    expect(await total(`search=${encodeURIComponent(tag)}`)).toBe(1);
    expect((await bed.ask('GET', 'jobs?page=-1')).status).toBe(400);
  });

  it('refuses writes from other sites, oversize bodies and unknown addresses', async () => {
    expect(
      (
        await bed.ask(
          'POST',
          'sites',
          { id: randomUUID(), name: 'x' },
          { origin: 'http://elsewhere.example' },
        )
      ).status,
    ).toBe(403);
    expect(
      (
        await bed.ask(
          'POST',
          'sites',
          { id: randomUUID(), name: 'x' },
          { 'sec-fetch-site': 'cross-site' },
        )
      ).status,
    ).toBe(403);
    expect((await bed.ask('POST', 'jobs', { big: 'x'.repeat(3_000_000) })).status).toBe(413);
    expect((await bed.ask('GET', 'nowhere')).status).toBe(404);
    expect((await bed.ask('GET', `jobs/${randomUUID()}`)).status).toBe(404);
    expect((await bed.ask('GET', 'jobs/not-an-id')).status).toBe(400);
  });

  it('is told address by address and problem by problem on a page made from its code', () => {
    const bare = (text: string): string => text.replace(/[\s\-\\_*]/gu, '');
    expect(bare(readFileSync('docs/api.md', 'utf8')))
      .withContext('run npm run formats')
      .toBe(bare(apiPage() as string));
  });

  it('publishes the JSON Schema of a job file', async () => {
    const { body } = await bed.ask('GET', 'schema/job.json');
    expect(Object.keys((body as unknown as { properties: object }).properties)).toContain('job');
  });

  it('goes on by itself when its connections were cut', async () => {
    const job = await made();
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    await owner.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = 'tactron_app'`,
    );
    await owner.end();
    let status = 0;
    for (let tries = 0; tries < 20 && status !== 200; tries++) {
      ({ status } = await bed.ask('GET', `jobs/${job.id}`));
      expect([200, 503]).toContain(status);
    }
    expect(status).toBe(200);
  });
});
