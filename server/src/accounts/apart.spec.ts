import { createHash, randomUUID } from 'node:crypto';
import pg from 'pg';
import { openCompany, password, Person, type Company } from '../testing/company.js';
import { author, change, newJob, reading, replace } from '../testing/samples.js';
import { databaseUrls, type Bed } from '../testing/testbed.js';
import { openAccounts } from './sessions.js';

describe('people apart', () => {
  let bed: Bed;
  let admin: Person;
  let adminLogin: string;
  let site: Company['site'];
  let joined: Company['joined'];
  beforeAll(async () => {
    ({ bed, admin, adminLogin, site, joined } = await openCompany());
  });
  afterAll(() => bed.close());

  it('sign nothing as another: the author is who is signed in, and a browser’s kept work goes under its owner alone', async () => {
    const job = newJob(site.hall);
    const person = await joined('electrician', [site.hall]);
    const other = await joined('electrician', [site.hall]);
    await person.ask('POST', 'jobs', { job, author });
    const forged = reading(job.id, {
      kind: 'signature',
      subject: 'handover',
      author: { name: 'Chief', role: 'approver' },
      body: { role: 'performed', statement: 'done', documentHash: 'a'.repeat(64) },
    } as never);
    await person.ask('POST', `jobs/${job.id}/evidence`, [forged]);
    const piece = reading(job.id, { author: { name: 'Chief', role: 'x' } });
    await person.ask('POST', `jobs/${job.id}/evidence`, [piece]);
    await person.ask('POST', `jobs/${job.id}/changes`, change(0, replace('/tag', 'X')));
    const me = (await person.ask('GET', 'me')).body;
    const stored = (await person.ask('GET', `jobs/${job.id}/evidence`)).body as unknown as {
      author: unknown;
      sentBy: string;
    }[];
    expect(stored.length).toBe(2);
    for (const e of stored)
      expect([e.author, e.sentBy]).toEqual([
        { name: `Name of ${person.login}`, role: 'fitter' },
        me['id'],
      ] as never);
    const [line] = (await person.ask('GET', `jobs/${job.id}/history`)).body as unknown as {
      author: { name: string };
      sentBy: string;
    }[];
    expect([line.author.name, line.sentBy]).toEqual(
      Array<string>(2).fill(`Name of ${person.login}`),
    );
    const asOther = await bed.ask(
      'POST',
      `jobs/${job.id}/changes`,
      change(1, replace('/tag', 'Y')),
      { cookie: other.cookie, 'x-account': String(me['id']) },
    );
    expect([asOther.status, asOther.body['type']]).toEqual([
      409,
      'urn:tactron:problem:otherAccount',
    ] as never);
  });

  it('tell nothing of other sites: no audit, no picture by its hash, no job by trying', async () => {
    const stranger = await joined('supervisor', [site.hall]);
    const job = newJob(site.yard);
    await admin.ask('POST', 'jobs', { job, author });
    const body = Buffer.from(`picture ${randomUUID()}`);
    const sha256 = createHash('sha256').update(body).digest('hex');
    const put = (cookie: string) =>
      fetch(`${bed.url}/api/files/${sha256}`, {
        method: 'PUT',
        headers: { 'content-type': 'image/jpeg', cookie },
        body: new Uint8Array(body),
      });
    const picture = (jobId: string) =>
      reading(jobId, {
        kind: 'attachment',
        subject: 'x',
        body: { sha256, name: 'p.jpg', type: 'image/jpeg', bytes: body.length },
      } as never);
    await put(admin.cookie);
    await admin.ask('POST', `jobs/${job.id}/evidence`, [picture(job.id)]);
    const own = newJob(site.hall);
    await stranger.ask('POST', 'jobs', { job: own, author });
    expect((await stranger.ask('POST', `jobs/${own.id}/evidence`, [picture(own.id)])).status).toBe(
      400,
    );
    expect((await stranger.ask('GET', `files/${sha256}`)).status).toBe(404);
    expect((await stranger.ask('GET', `accounts/audit?job=${job.id}`)).status).toBe(404);
    expect((await stranger.ask('GET', `accounts/audit?job=${own.id}`)).status).toBe(200);
    // who has the picture has it: naming it after sending it is no secret told
    await put(stranger.cookie);
    expect((await stranger.ask('POST', `jobs/${own.id}/evidence`, [picture(own.id)])).status).toBe(
      201,
    );
    expect((await stranger.ask('GET', 'jobs')).headers.get('cache-control')).toBe('no-store');
  });

  it('end a stream of events with the session, with the right to the site, and when one session opens too many', async () => {
    const job = newJob(site.hall);
    await admin.ask('POST', 'jobs', { job, author });
    const open = async (cookie: string) => {
      const answer = await fetch(`${bed.url}/api/jobs/${job.id}/events`, { headers: { cookie } });
      const reader = (answer.body as ReadableStream<Uint8Array>).getReader();
      const ended = (async () => {
        for (;;) if ((await reader.read()).done) return true;
      })();
      return { ended, close: () => reader.cancel() };
    };
    const out = await joined('reader', [site.hall]);
    const first = await open(out.cookie);
    await out.ask('POST', 'session/sign-out', {});
    expect(await first.ended).toBeTrue();
    const moved = await joined('reader', [site.hall]);
    const second = await open(moved.cookie);
    const accounts = (await admin.ask('GET', 'accounts')).body as unknown as {
      id: string;
      login: string;
    }[];
    const id = accounts.find((a) => a.login === moved.login)?.id;
    await admin.ask('PATCH', `accounts/${id}`, { sites: [site.yard] });
    expect(await second.ended).toBeTrue();
    const many = await joined('reader', [site.hall]);
    const streams = [];
    for (let i = 0; i < 13; i++) streams.push(await open(many.cookie));
    expect(await streams[0].ended).toBeTrue();
    const last = await Promise.race([
      streams[12].ended,
      new Promise((done) => setTimeout(() => done(false), 200)),
    ]);
    expect(last).toBeFalse();
    await Promise.all(streams.map((s) => s.close()));
  });

  it('take no password that is tried first, wherever one is chosen', async () => {
    const { body } = await admin.ask('POST', 'accounts/invitations', {
      role: 'reader',
      sites: [site.hall],
    });
    const login = `weak-${randomUUID().slice(0, 6)}`;
    for (const weak of [
      'password1234',
      'qwertyuiop12',
      'aaaaaaaaaaaa',
      '123456789012',
      `${login}1`,
    ]) {
      const answer = await bed.ask('POST', `session/invitations/${String(body['token'])}/accept`, {
        login,
        name: 'W',
        trade: '',
        password: weak,
      });
      expect([answer.status, answer.body['path']])
        .withContext(weak)
        .toEqual([400, 'password'] as never);
    }
    const person = await joined('reader', [site.hall]);
    const changed = await person.ask('POST', 'accounts/password', {
      before: password,
      password: 'iloveyou1234',
    });
    expect([changed.status, changed.body['path']]).toEqual([400, 'password'] as never);
  });

  it('count tries before they are judged: sixty at once pass no more than five', async () => {
    const person = await joined('reader', [site.hall]);
    const answers = await Promise.all(
      Array.from({ length: 30 }, () => new Person(bed).signIn(person.login, 'wrong wrong wrong')),
    );
    expect(answers.filter((a) => a.status === 401).length).toBeLessThanOrEqual(5);
    expect(answers.filter((a) => a.status === 429).length).toBeGreaterThanOrEqual(25);
    await bed.db.query('SELECT 1');
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    await owner.query('DELETE FROM sign_in_limit');
    await owner.end();
  });

  it('list invitations and take them back; sign-ins, failures and sign-outs stand in the audit', async () => {
    const made = await admin.ask('POST', 'accounts/invitations', {
      role: 'reader',
      sites: [site.hall],
    });
    const list = async () =>
      (await admin.ask('GET', 'accounts/invitations')).body as unknown as {
        id: string;
        state: string;
      }[];
    const [newest] = await list();
    expect(newest.state).toBe('open');
    expect((await admin.ask('POST', `accounts/invitations/${newest.id}/revoke`, {})).status).toBe(
      200,
    );
    expect((await list())[0].state).toBe('revoked');
    expect((await bed.ask('GET', `session/invitations/${String(made.body['token'])}`)).status).toBe(
      410,
    );
    const person = await joined('reader', [site.hall]);
    await new Person(bed).signIn(person.login, 'wrong wrong wrong');
    await person.ask('POST', 'session/sign-out', {});
    await person.signIn(person.login);
    const acts = (
      (await admin.ask('GET', 'accounts/audit')).body as unknown as {
        name: string;
        act: string;
      }[]
    )
      .filter((l) => l.name === `Name of ${person.login}`)
      .map((l) => l.act);
    expect(acts).toEqual([
      'signed in',
      'signed out',
      'failed to sign in',
      'took up an invitation and signed in',
    ]);
  });

  it('end a session some day however much it is used, and take away what is over', async () => {
    const person = await joined('reader', [site.hall]);
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    await owner.query(
      `UPDATE session SET sess = jsonb_set(sess::jsonb, '{begunAt}', to_jsonb(0))::json WHERE sess->>'accountId' = (SELECT id::text FROM account WHERE login = $1)`,
      [person.login],
    );
    expect((await person.ask('GET', 'sites')).status).toBe(401);
    await owner.query(
      `UPDATE session SET expire = now() - interval '1 day' WHERE sid = (SELECT sid FROM session LIMIT 1)`,
    );
    await owner.query(
      `UPDATE invitation SET used_at = now() - interval '90 days' WHERE used_at IS NOT NULL`,
    );
    const accounts = openAccounts(databaseUrls().app, 'x');
    await accounts.prune();
    await accounts.close();
    const left = await owner.query(
      `SELECT (SELECT count(*) FROM session WHERE expire < now()) + (SELECT count(*) FROM invitation WHERE used_at IS NOT NULL) AS left`,
    );
    expect(Number((left.rows[0] as { left: string }).left)).toBe(0);
    await owner.end();
    await admin.signIn(adminLogin);
  });
});
