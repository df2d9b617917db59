import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import pg from 'pg';
import type { Evidence } from '@tactron/core/job';
import { JobChangeRow, JobRow } from '../db/entities.js';
import { author, change, madeJob, madeSite, newJob, reading, replace } from '../testing/samples.js';
import { databaseUrls, openBed, type Bed } from '../testing/testbed.js';

describe('faults survived', () => {
  let bed: Bed;
  let siteId: string;
  beforeAll(async () => {
    bed = await openBed();
    siteId = await madeSite(bed);
  });
  afterAll(() => bed.close());

  const asOwner = async (...statements: string[]): Promise<void> => {
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    for (const sql of statements) await owner.query(sql);
    await owner.end();
  };

  it('a full disk: nothing is half stored, the sender hears why, and the same change goes in when there is room', async () => {
    const job = await madeJob(bed, siteId);
    const sent = change(0, replace('/tag', 'FULL'));
    const proof = reading(job.id);
    await asOwner(
      `CREATE OR REPLACE FUNCTION no_room() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'no space left on device' USING ERRCODE = 'disk_full'; END $$`,
      // the last statement of a save is the one that meets the full disk: what came before it must go too
      `CREATE TRIGGER no_room BEFORE UPDATE ON job FOR EACH ROW WHEN (NEW.id = '${job.id}') EXECUTE FUNCTION no_room()`,
      `CREATE TRIGGER no_room BEFORE INSERT ON evidence FOR EACH ROW WHEN (NEW.job_id = '${job.id}') EXECUTE FUNCTION no_room()`,
    );
    try {
      const refused = await bed.ask('POST', `jobs/${job.id}/changes`, sent);
      expect([refused.status, refused.body['type']]).toEqual([
        507,
        'urn:tactron:problem:storageFull',
      ] as never);
      expect((await bed.ask('POST', `jobs/${job.id}/evidence`, [proof])).status).toBe(507);
      expect(await bed.db.getRepository(JobChangeRow).countBy({ jobId: job.id })).toBe(1);
      expect((await bed.ask('GET', `jobs/${job.id}`)).body['revision']).toBe(0 as never);
    } finally {
      await asOwner(
        'DROP TRIGGER no_room ON job',
        'DROP TRIGGER no_room ON evidence',
        'DROP FUNCTION no_room',
      );
    }
    expect((await bed.ask('POST', `jobs/${job.id}/changes`, sent)).body['revision']).toBe(
      1 as never,
    );
    expect((await bed.ask('POST', `jobs/${job.id}/evidence`, [proof])).status).toBe(201);
  });

  it('a clock that is a day wrong: both times are kept, and by how much they differ', async () => {
    const job = await madeJob(bed, siteId);
    const tomorrow = new Date(Date.now() + 86_400_000).toISOString();
    const headers = { 'x-clock': tomorrow };
    await bed.ask(
      'POST',
      `jobs/${job.id}/changes`,
      { ...change(0, replace('/tag', 'T')), atClient: tomorrow },
      headers,
    );
    const { body } = await bed.ask(
      'POST',
      `jobs/${job.id}/evidence`,
      [reading(job.id, { atClient: tomorrow })],
      headers,
    );
    const [stored] = body as unknown as Evidence[];
    expect([
      stored.atClient,
      Math.abs((stored.clockAheadS ?? 0) - 86_400) < 60,
      Math.abs(Date.parse(stored.atServer as string) - Date.now()) < 60_000,
    ]).toEqual([tomorrow, true, true]);
    const [line] = (await bed.ask('GET', `jobs/${job.id}/history`)).body as unknown as {
      atClient: string;
      atServer: string;
      clockAheadS: number;
    }[];
    expect([
      line.atClient,
      Math.abs(line.clockAheadS - 86_400) < 60,
      Math.abs(Date.parse(line.atServer) - Date.now()) < 60_000,
    ]).toEqual([tomorrow, true, true]);
  });

  it('a reading that waited a day with a right clock is no wrong clock', async () => {
    const job = await madeJob(bed, siteId);
    const yesterday = new Date(Date.now() - 86_400_000).toISOString();
    const { body } = await bed.ask(
      'POST',
      `jobs/${job.id}/evidence`,
      [reading(job.id, { atClient: yesterday })],
      { 'x-clock': new Date().toISOString() },
    );
    expect(Math.abs((body as unknown as Evidence[])[0].clockAheadS ?? 99)).toBeLessThan(60);
  });

  it('bodies that are too large, torn, no JSON, or of the wrong shape: an answer each, and nothing stored', async () => {
    const before = await bed.db.getRepository(JobRow).count();
    const post = async (body: string, type = 'application/json') =>
      (
        await fetch(`${bed.url}/api/jobs`, {
          method: 'POST',
          headers: { 'content-type': type },
          body,
        })
      ).status;
    expect(await post(`{"big":"${'x'.repeat(2_100_000)}"}`)).toBe(413);
    expect(await post('{"half')).toBe(400);
    expect(await post('null')).toBe(400);
    expect(await post('[]')).toBe(400);
    expect(await post('{}', 'text/plain')).toBe(400);
    expect(await post('{}', 'application/json; charset=martian')).toBe(415);
    expect(await post(`${'['.repeat(200_000)}${']'.repeat(200_000)}`)).toBe(400);
    expect(await post('{"__proto__":{"admin":true},"job":{}}')).toBe(400);
    expect(({} as { admin?: boolean }).admin).toBeUndefined();
    expect(await bed.db.getRepository(JobRow).count()).toBe(before);
  });

  it('patches that reach for what is no part of a job', async () => {
    const job = await madeJob(bed, siteId);
    for (const path of [
      '/__proto__/polluted',
      '/constructor/prototype/polluted',
      '/scripts/__proto__/polluted',
    ])
      expect(
        (
          await bed.ask(
            'POST',
            `jobs/${job.id}/changes`,
            change(0, [{ op: 'add', path, value: true }]),
          )
        ).status,
      )
        .withContext(path)
        .toBe(400);
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
    expect((await bed.ask('GET', `jobs/${job.id}`)).body['revision']).toBe(0 as never);
  });

  it('values without measure: text, depth and size have an end, in changes, jobs and files', async () => {
    const job = await madeJob(bed, siteId);
    let deep: unknown = 1;
    for (let i = 0; i < 60; i++) deep = { deep };
    const actual = (value: unknown) =>
      bed.ask(
        'POST',
        `jobs/${job.id}/changes`,
        change(0, [{ op: 'add', path: '/deviations/x', value }]),
      );
    for (const value of [deep, { actual: 'x'.repeat(1_900_000) }, { actual: { any: 'thing' } }])
      expect((await actual(value)).status).toBe(400);
    const note = { of: { kind: 'device', id: 'x' }, note: 'x'.repeat(300), why: 'w' };
    const scripts = Object.fromEntries(Array.from({ length: 30_000 }, (_, i) => [`s${i}`, note]));
    const file = { format: 'tactron-job', version: 2, job: { ...job, scripts }, profiles: {} };
    expect((await bed.ask('POST', 'import', file)).status).toBe(400);
    expect((await bed.ask('GET', `jobs/${job.id}`)).body['revision']).toBe(0 as never);
  });

  it('writes from pages of elsewhere, and pages that call themselves by another name', async () => {
    const site = { id: randomUUID(), name: 'x' };
    for (const headers of [
      { origin: 'http://elsewhere.example' },
      { origin: 'null' },
      { origin: 'http://[' },
      { origin: '%' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ] as Record<string, string>[])
      expect((await bed.ask('POST', 'sites', site, headers)).status).toBe(403);
    expect(
      await raw(`GET /api/sites HTTP/1.1\r\nHost: rebound.example\r\nConnection: close\r\n\r\n`),
    ).toMatch(/^HTTP\/1\.1 421 /u);
    expect((await bed.ask('GET', 'sites')).body).not.toContain(
      jasmine.objectContaining({ id: site.id }) as never,
    );
  });

  it('a window of another release: it is told, and nothing is stored', async () => {
    const job = await madeJob(bed, siteId);
    for (const version of ['0', '1', '99', 'x']) {
      const answer = await bed.ask(
        'POST',
        `jobs/${job.id}/changes`,
        change(0, replace('/tag', 'OTHER')),
        { 'x-format': version },
      );
      expect([answer.status, answer.body['type']]).toEqual([
        409,
        'urn:tactron:problem:reload',
      ] as never);
    }
    expect(
      (await bed.ask('GET', `jobs/${job.id}`, undefined, { 'x-format': '2' })).body['revision'],
    ).toBe(0 as never);
  });

  it('path tricks', async () => {
    for (const path of [
      '/../../../etc/passwd',
      '/%2e%2e/%2e%2e/etc/passwd',
      '/..%2f..%2fetc%2fpasswd',
      '/api/files/..%2f..%2fpackage.json',
      '/api/jobs/%00',
      '/api/jobs/%ff',
      '/api/jobs/%ff/evidence',
      '/api/files/%c0%ae',
      '/%ff',
      '//etc/passwd',
    ]) {
      const answer = await raw(
        `GET ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n`,
      );
      expect(answer)
        .withContext(path)
        .toMatch(/^HTTP\/1\.1 (400|404) /u);
      expect(answer).withContext(path).not.toContain('root:');
    }
  });

  it('hostile names: kept to the letter, and told back as text', async () => {
    const names = [
      '<img src=x onerror=alert(1)>',
      `'; DROP TABLE job; --`,
      '=HYPERLINK("http://x")',
      '${7*7}{{7*7}}',
      '\u202Etxt.exe',
      'Ünïcødé ☃ 漢字',
    ];
    for (const name of names) {
      const job = { ...newJob(siteId, name.slice(0, 40).trim()), machine: name };
      expect((await bed.ask('POST', 'jobs', { job, author: { name, role: name } })).status)
        .withContext(name)
        .toBe(201);
      const { body, type } = await bed.ask('GET', `jobs/${job.id}`);
      expect([(body['job'] as { machine: string }).machine, type]).toEqual([
        name,
        'application/json; charset=utf-8',
      ]);
    }
    for (const machine of [
      'nul \u0000 inside',
      'half \ud83d',
      '\ude00 half',
      'a\ud83d\ud83d\ude00',
    ]) {
      const job = { ...newJob(siteId), machine };
      const { status, body } = await bed.ask('POST', 'jobs', { job, author });
      expect([status, body['path']])
        .withContext(JSON.stringify(machine))
        .toEqual([400, 'job.machine'] as never);
    }
    const whole = { ...newJob(siteId), machine: 'whole \ud83d\ude00' };
    expect((await bed.ask('POST', 'jobs', { job: whole, author })).status).toBe(201);
  });

  it('slow clients: they are let go, and nobody waits for them', async () => {
    const slow = raw(
      `POST /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"job":`,
    );
    const begin = Date.now();
    expect((await bed.ask('GET', 'sites')).status).toBe(200);
    expect(Date.now() - begin).toBeLessThan(700);
    expect(await slow).toMatch(/^HTTP\/1\.1 408 [^]*did not arrive in time/u);
    expect(await raw('POST /api/jobs HTTP/1.1\r\nHost: 127')).toMatch(/^(HTTP\/1\.1 408 |$)/u);
  });

  it('a body that keeps coming may take longer than any window; what trickles is let go', async () => {
    const sent = async (pieces: number, bytes: number): Promise<number> => {
      const body = new ReadableStream({
        async start(to) {
          for (let n = 0; n < pieces; n++) {
            to.enqueue(new Uint8Array(bytes).fill(n));
            await new Promise((done) => setTimeout(done, 120));
          }
          to.close();
        },
      });
      const options = { method: 'POST', body, duplex: 'half' } as RequestInit;
      const headers = { 'content-type': 'application/zip' };
      return (await fetch(`${bed.url}/api/import`, { ...options, headers })).status;
    };
    // No bundle, but read to its end over 2.4 s.
    expect(await sent(20, 2000)).toBe(400);
    expect(await sent(20, 20)).toBe(408);
  });

  it('sixteen at once on one job: every change that was acknowledged is there, once, and the chain holds', async () => {
    const job = await madeJob(bed, siteId);
    const acknowledged: string[] = [];
    await Promise.all(
      Array.from({ length: 16 }, async (_, who) => {
        const sent = change(0, [
          { op: 'add', path: `/scripts/s${who}`, value: { ord: who, name: `s${who}`, acts: [] } },
        ]);
        for (let base = 0; ;) {
          const { status, body } = await bed.ask('POST', `jobs/${job.id}/changes`, {
            ...sent,
            base,
          });
          if (status === 200) return acknowledged.push(sent.id);
          expect([412, 503]).toContain(status);
          if (status === 412) base = Number(body['revision']);
        }
      }),
    );
    const { body } = await bed.ask('GET', `jobs/${job.id}`);
    expect([
      acknowledged.length,
      Object.keys((body['job'] as { scripts: object }).scripts).length,
      Number(body['revision']),
    ]).toEqual([16, 16, 16]);
    const rows = await bed.db
      .getRepository(JobChangeRow)
      .find({ where: { jobId: job.id }, order: { revision: 'ASC' } });
    rows.slice(1).forEach((row, i) => expect(row.prevHash).toBe(rows[i].hash));
  });

  /** Sends bytes as they are and gives back what came until the other side closes. */
  function raw(text: string): Promise<string> {
    return new Promise((done) => {
      const { port, hostname } = new URL(bed.url);
      const socket = connect(Number(port), hostname, () => socket.write(text));
      let got = '';
      socket.on('data', (data) => (got += data.toString()));
      socket.on('close', () => done(got));
      socket.on('error', () => done(got));
    });
  }
});
