import { Injector } from '@angular/core';
import { emptyJob, type Evidence } from '@tactron/core/job';
import { Api, ApiError } from './api';
import { Courier, NEWS_CHANNEL, type News } from './courier';
import { LocalStore, SHELF } from './local-store';
import { OWNER_HERE } from './owner';
import { chainedPart, inChain } from './rebase';
import { Disk, MapShelf } from './testing/map-shelf';

const author = { name: 'A', role: '' };
const baseOf = (id: string) => ({
  id,
  job: emptyJob({
    id,
    siteId: 's',
    tag: id,
    machine: '',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'z' },
  }),
  revision: 1,
  archived: false,
  profile: {} as never,
  evidence: [],
});
const change = (jobId: string, id: string) => ({
  id,
  jobId,
  order: 1,
  patch: [{ op: 'replace' as const, path: '/tag', value: id }],
  label: id,
  author,
  atClient: '',
});
const none = { undo: [], redo: [] };

describe('the courier', () => {
  let local: LocalStore;
  let courier: Courier;
  let news: News[];
  let sent: string[];
  let api: Record<string, unknown>;

  beforeEach(async () => {
    sent = [];
    news = [];
    api = {
      change: (_id: string, c: { id: string; base: number }) => {
        sent.push(c.id);
        return Promise.resolve({ revision: c.base + 1 });
      },
      addEvidence: (_id: string, list: Evidence[]) => {
        sent.push(...list.map((e) => e.id));
        return Promise.resolve(list);
      },
      putFile: () => Promise.resolve({}),
    };
    const injector = Injector.create({
      providers: [
        { provide: SHELF, useFactory: () => new MapShelf(new Disk()) },
        { provide: NEWS_CHANNEL, useValue: null },
        { provide: OWNER_HERE, useValue: 'spec-courier' },
        { provide: Api, useFactory: () => api },
        { provide: LocalStore, useFactory: () => new LocalStore(), deps: [] },
        { provide: Courier, useFactory: () => new Courier(), deps: [] },
      ],
    });
    local = injector.get(LocalStore);
    courier = injector.get(Courier);
    courier.news.subscribe((n) => news.push(n));
    for (const id of ['one', 'two']) {
      await local.absorb(baseOf(id));
      await local.keep(id, { changes: [change(id, `c-${id}`)], ...none });
    }
  });
  afterEach(() => {
    courier.rest();
    localStorage.removeItem('tactron.waiting.spec-courier');
  });

  /** Rounds one after the other, without waiting for the clock. */
  const rounds = async (n: number): Promise<void> => {
    for (let i = 0; i < n; i++) {
      await courier.run();
      courier.rest();
    }
  };

  it('lets a thing at which the server fails hold up its own job only, and sets it aside after some tries', async () => {
    const usual = api['change'] as (id: string, c: unknown) => Promise<unknown>;
    api['change'] = (id: string, c: unknown) =>
      id === 'one' ? Promise.reject(new ApiError(500, 'Something went wrong.')) : usual(id, c);
    await rounds(1);
    expect([sent, (await local.outbox('one')).length]).toEqual([['c-two'], 1]);
    await rounds(4);
    expect((await local.outbox('one')).length).toBe(1);
    await rounds(1);
    expect([(await local.outbox('one')).length, (await local.aside()).map((a) => a.why)]).toEqual([
      0,
      ['Something went wrong.'],
    ]);
    expect(news.some((n) => n.kind === 'refused' && n.changeId === 'c-one')).toBeTrue();
  });

  it('sends nothing of anybody while another person is signed in, and keeps all of it', async () => {
    api['change'] = () =>
      Promise.reject(new ApiError(409, 'another', { type: 'urn:tactron:problem:otherAccount' }));
    await rounds(8);
    expect([await local.outbox('one'), await local.outbox('two'), await local.aside()]).toEqual([
      [change('one', 'c-one')],
      [change('two', 'c-two')],
      [],
    ]);
  });

  it('sets a picture aside that the server will not take, with the piece that names it, and sends what is behind it', async () => {
    const body = new Blob(['x']);
    await local.keepFile({ sha256: 'f', jobId: 'one', type: 'image/jpeg', body, sent: 0 });
    const picture = {
      id: 'e-picture',
      jobId: 'one',
      kind: 'attachment',
      subject: 'x',
      body: { sha256: 'f' },
    } as unknown as Evidence;
    const reading = { id: 'e-reading', jobId: 'one', kind: 'keyed' } as Evidence;
    await local.keep('one', { evidence: [picture, reading], ...none });
    api['putFile'] = () => Promise.reject(new ApiError(413, 'The body is too large.'));
    await rounds(1);
    expect([sent, (await local.aside()).map((a) => [a.id, a.why])]).toEqual([
      ['c-one', 'e-reading', 'c-two'],
      [['e-picture', 'The body is too large.']],
    ]);
    expect(await local.waitingEvidence('one')).toEqual([]);
  });
});

describe('evidence that is here', () => {
  const piece = (id: string, prevHash: string, hash?: string): Evidence =>
    ({ id, prevHash, hash }) as Evidence;
  const [a, b, c] = [piece('a', '', '1'), piece('b', '1', '2'), piece('c', '2', '3')];

  it('is asked on from where its chain reaches, whatever the order and the gaps', () => {
    expect(chainedPart([])).toEqual({ after: 0, hash: '' });
    expect(chainedPart([c, a, b])).toEqual({ after: 3, hash: '3' });
    expect(chainedPart([a, c])).toEqual({ after: 1, hash: '1' });
    expect(chainedPart([a, b, piece('w', '')])).toEqual({ after: 2, hash: '2' });
    expect(inChain([c, b, a], 2)).toEqual([a, b]);
  });
});
