import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { author, change, newJob, reading, replace } from '../testing/samples.js';
import { openCompany, password, Person, type Company } from '../testing/company.js';
import { databaseUrls, openBed, type Bed } from '../testing/testbed.js';

describe('accounts', () => {
  let bed: Bed;
  let admin: Person;
  let adminLogin: string;
  let site: Company['site'];
  let joined: Company['joined'];
  beforeAll(async () => {
    ({ bed, admin, adminLogin, site, joined } = await openCompany());
  });
  afterAll(() => bed.close());

  it('leave nothing open to whoever is not signed in: every address asks', async () => {
    const job = newJob(site.hall);
    await admin.ask('POST', 'jobs', { job, author });
    const stranger = new Person(bed);
    const asked: [string, string, unknown?][] = [
      ['GET', 'sites'],
      ['POST', 'sites', { id: randomUUID(), name: 'x' }],
      ['PATCH', `sites/${site.hall}`, { name: 'x' }],
      ['GET', 'profiles'],
      ['GET', `profiles/${job.profile.sha256}`],
      ['GET', 'jobs'],
      ['POST', 'jobs', { job, author }],
      ['GET', `jobs/${job.id}`],
      ['POST', `jobs/${job.id}/changes`, change(0, replace('/tag', 'X'))],
      ['GET', `jobs/${job.id}/changes`],
      ['GET', `jobs/${job.id}/history`],
      ['GET', `jobs/${job.id}/at/0`],
      ['POST', `jobs/${job.id}/copy`, { id: randomUUID(), tag: 'x' }],
      ['POST', `jobs/${job.id}/archive`, { archived: true }],
      ['GET', `jobs/${job.id}/file`],
      ['GET', `jobs/${job.id}/events`],
      ['GET', `jobs/${job.id}/evidence`],
      ['POST', `jobs/${job.id}/evidence`, [reading(job.id)]],
      ['POST', 'import', {}],
      ['GET', `files/${'0'.repeat(64)}`],
      ['PUT', `files/${'0'.repeat(64)}`, {}],
      ['GET', 'accounts'],
      ['PATCH', `accounts/${randomUUID()}`, {}],
      ['POST', 'accounts/invitations', {}],
      ['GET', 'accounts/audit'],
      ['POST', 'accounts/password', {}],
      ['POST', 'accounts/sign-out-everywhere', {}],
      ['POST', `accounts/${randomUUID()}/sign-out`, {}],
      ['GET', 'me'],
    ];
    for (const [method, path, body] of asked)
      expect([path, (await stranger.ask(method, path, body)).status]).toEqual([path, 401]);
    expect((await admin.ask('GET', `jobs/${job.id}`)).body['revision']).toBe(0 as never);
  });

  it('let each role do what is its own, and nothing more', async () => {
    const job = newJob(site.hall);
    await admin.ask('POST', 'jobs', { job, author });
    const [reader, electrician, supervisor] = [
      await joined('reader', [site.hall]),
      await joined('electrician', [site.hall]),
      await joined('supervisor', [site.hall]),
    ];
    const may = async (person: Person): Promise<number[]> => {
      const { body } = await person.ask('GET', `jobs/${job.id}`);
      const statuses = [
        (await person.ask('GET', 'jobs')).status,
        (
          await person.ask(
            'POST',
            `jobs/${job.id}/changes`,
            change(Number(body['revision']), replace('/machine', `m${randomUUID().slice(0, 4)}`)),
          )
        ).status,
        (await person.ask('POST', `jobs/${job.id}/evidence`, [reading(job.id)])).status,
        (await person.ask('POST', 'accounts/invitations', { role: 'reader', sites: [site.hall] }))
          .status,
        (await person.ask('POST', `jobs/${job.id}/archive`, { archived: false })).status,
        (await person.ask('GET', 'accounts')).status,
      ];
      return statuses;
    };
    expect(await may(reader)).toEqual([200, 403, 403, 403, 403, 403]);
    expect(await may(electrician)).toEqual([200, 200, 201, 403, 403, 403]);
    expect(await may(supervisor)).toEqual([200, 200, 201, 201, 200, 403]);
    expect(await may(admin)).toEqual([200, 200, 201, 201, 200, 200]);
    expect(
      (
        await supervisor.ask('POST', 'accounts/invitations', {
          role: 'supervisor',
          sites: [site.hall],
        })
      ).status,
    ).toBe(403);
    expect(
      (await supervisor.ask('POST', 'accounts/invitations', { role: 'reader', sites: [site.yard] }))
        .status,
    ).toBe(403);
  });

  it('show jobs only of the sites that are shared, and move none out of them', async () => {
    const [mine, other] = [newJob(site.hall, 'MINE'), newJob(site.yard, 'OTHER')];
    for (const job of [mine, other]) await admin.ask('POST', 'jobs', { job, author });
    const person = await joined('electrician', [site.hall]);
    const seen = (await person.ask('GET', 'jobs?size=100')).body['rows'] as { siteId: string }[];
    expect(new Set(seen.map((r) => r.siteId))).toEqual(new Set([site.hall]));
    expect(
      ((await person.ask('GET', 'sites')).body as unknown as { id: string }[]).map((s) => s.id),
    ).toEqual([site.hall]);
    for (const path of ['', '/history', '/at/0', '/evidence', '/changes', '/file', '/events'])
      expect((await person.ask('GET', `jobs/${other.id}${path}`)).status)
        .withContext(path)
        .toBe(404);
    expect(
      (await person.ask('POST', `jobs/${other.id}/changes`, change(0, replace('/tag', 'X'))))
        .status,
    ).toBe(404);
    expect(
      (await person.ask('POST', `jobs/${other.id}/evidence`, [reading(other.id)])).status,
    ).toBe(404);
    expect(
      (
        await person.ask(
          'POST',
          `jobs/${mine.id}/changes`,
          change(0, replace('/siteId', site.yard)),
        )
      ).status,
    ).toBe(400);
    // A site that is not shared is told like one that is not there.
    const [there, nowhere] = await Promise.all(
      [site.yard, randomUUID()].map((id) =>
        person.ask('POST', 'jobs', { job: newJob(id), author }),
      ),
    );
    expect([there.status, there.body['title']]).toEqual([400, nowhere.body['title']] as never);
    expect((await person.ask('GET', `jobs/${mine.id}`)).body['revision']).toBe(0 as never);
  });

  it('take a password for five tries, then for a while not even the right one', async () => {
    const person = await joined('reader', [site.hall]);
    const stranger = new Person(bed);
    for (let i = 0; i < 5; i++)
      expect((await stranger.signIn(person.login, 'wrong wrong wrong')).status).toBe(401);
    const locked = await stranger.signIn(person.login);
    expect([locked.status, String(locked.body['title'])]).toEqual([
      429,
      jasmine.stringMatching(/Try again in \d+ min/u) as never,
    ]);
    expect((await person.ask('GET', 'jobs')).status).toBe(200);
    expect((await new Person(bed).signIn(adminLogin)).status).toBe(200);
  });

  it('sign out one browser, or every one', async () => {
    const first = await joined('electrician', [site.hall]);
    const second = new Person(bed);
    const third = new Person(bed);
    for (const p of [second, third]) await p.signIn(first.login);
    const statuses = async () =>
      Promise.all([first, second, third].map(async (p) => (await p.ask('GET', 'sites')).status));
    const stolen = second.cookie;
    await second.ask('POST', 'session/sign-out', {});
    expect(await statuses()).toEqual([200, 401, 200]);
    expect((await bed.ask('GET', 'sites', undefined, { cookie: stolen })).status).toBe(401);
    await third.ask('POST', 'accounts/sign-out-everywhere', {});
    expect(await statuses()).toEqual([401, 401, 401]);
    expect((await first.signIn(first.login)).status).toBe(200);
  });

  it('take a new password from who knows the old one, and end every other session', async () => {
    const first = await joined('electrician', [site.hall]);
    const second = new Person(bed);
    await second.signIn(first.login);
    const fresh = 'eleven worn carbon brushes';
    expect(
      (
        await first.ask('POST', 'accounts/password', {
          before: 'not the one before',
          password: fresh,
        })
      ).status,
    ).toBe(400);
    expect(
      (await first.ask('POST', 'accounts/password', { before: password, password: 'short' })).body[
        'path'
      ],
    ).toBe('password' as never);
    expect(
      (await first.ask('POST', 'accounts/password', { before: password, password: fresh })).status,
    ).toBe(200);
    expect([
      (await first.ask('GET', 'sites')).status,
      (await second.ask('GET', 'sites')).status,
    ]).toEqual([200, 401]);
    expect([
      (await second.signIn(first.login)).status,
      (await second.signIn(first.login, fresh)).status,
    ]).toEqual([401, 200]);
  });

  it('end when an administrator locks them, and the last administrator is never locked', async () => {
    const person = await joined('electrician', [site.hall]);
    const { body } = await admin.ask('GET', 'accounts');
    const list = body as unknown as {
      id: string;
      login: string;
      administrator: boolean;
      disabled: boolean;
    }[];
    const of = (login: string) => list.find((a) => a.login === login)?.id;
    expect(
      (await admin.ask('PATCH', `accounts/${of(person.login)}`, { disabled: true })).status,
    ).toBe(200);
    expect((await person.ask('GET', 'jobs')).status).toBe(401);
    expect((await person.signIn(person.login)).status).toBe(401);
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    await owner.query(`UPDATE account SET disabled = true WHERE administrator AND login <> $1`, [
      adminLogin,
    ]);
    await owner.end();
    expect(
      (await admin.ask('PATCH', `accounts/${of(adminLogin)}`, { disabled: true })).status,
    ).toBe(409);
  });

  it('are made by an invitation once, with a login of their own and a password that is long enough', async () => {
    const { body } = await admin.ask('POST', 'accounts/invitations', {
      role: 'reader',
      sites: [site.hall],
    });
    const path = `session/invitations/${String(body['token'])}`;
    const person = { login: `q-${randomUUID().slice(0, 8)}`, name: 'Q', trade: '', password };
    expect((await bed.ask('GET', path)).body['role']).toBe('reader' as never);
    expect(
      (await bed.ask('POST', `${path}/accept`, { ...person, password: 'short' })).body['path'],
    ).toBe('password' as never);
    expect((await bed.ask('POST', `${path}/accept`, { ...person, login: adminLogin })).status).toBe(
      409,
    );
    expect((await bed.ask('POST', `${path}/accept`, person)).status).toBe(201);
    expect(
      (await bed.ask('POST', `${path}/accept`, { ...person, login: 'another-one' })).status,
    ).toBe(410);
    expect((await bed.ask('GET', `session/invitations/guessed`)).status).toBe(410);
  });

  it('keep no password that could be read, and sessions where every server finds them', async () => {
    const owner = new pg.Client({ connectionString: databaseUrls().owner });
    await owner.connect();
    const { rows } = await owner.query<{ password_hash: string }>(
      'SELECT password_hash FROM account',
    );
    expect(rows.every((r) => r.password_hash.startsWith('$argon2id$'))).toBeTrue();
    expect(new Set(rows.map((r) => r.password_hash)).size).toBe(rows.length);
    expect((await owner.query('SELECT 1 FROM session')).rowCount).toBeGreaterThan(0);
    await owner.end();
    const second = await openBed({ accounts: true, secret: bed.secret });
    expect((await second.ask('GET', 'sites', undefined, { cookie: admin.cookie })).status).toBe(
      200,
    );
    await second.close();
  });

  it('note who read and who changed', async () => {
    const job = newJob(site.hall);
    await admin.ask('POST', 'jobs', { job, author });
    const person = await joined('electrician', [site.hall]);
    await person.ask('GET', `jobs/${job.id}`);
    await person.ask('POST', `jobs/${job.id}/changes`, {
      ...change(0, replace('/tag', 'X')),
      label: 'tag',
    });
    const lines = (await admin.ask('GET', `accounts/audit?job=${job.id}`)).body as unknown as {
      name: string;
      act: string;
      detail: string;
    }[];
    expect(lines.map((l) => `${l.name}: ${l.act} ${l.detail}`)).toEqual([
      `Name of ${person.login}: changed tag`,
      `Name of ${person.login}: read S-1`,
      'Chief: made S-1',
    ]);
  });
});
