import { Injector } from '@angular/core';
import { emptyJob, type Evidence, type Job } from '@tactron/core/job';
import type { PendingChange } from './job.model';
import { LocalStore, SHELF } from './local-store';
import { OWNER_HERE } from './owner';
import { Disk, MapShelf } from './testing/map-shelf';

const author = { name: 'A', role: '' };
const job: Job = emptyJob({
  id: 'j',
  siteId: 's',
  tag: 'FM-LIFT',
  machine: '',
  practice: 'IEC',
  profile: { family: 'x', model: 'y', version: '1', sha256: 'z' },
});
const base = { id: 'j', job, revision: 4, archived: false, profile: {} as never, evidence: [] };
const change = (
  id: string,
  order: number,
  patch: PendingChange['patch'] = [{ op: 'replace', path: '/tag', value: id }],
): PendingChange => ({
  id,
  jobId: 'j',
  order,
  patch,
  label: id,
  author,
  atClient: '',
});
const piece = (id: string): Evidence => ({ id, jobId: 'j', kind: 'keyed' }) as Evidence;
const none = { undo: [], redo: [] };

const storeOn = (disk: Disk, owner = ''): LocalStore =>
  Injector.create({
    providers: [
      { provide: SHELF, useFactory: () => new MapShelf(disk) },
      { provide: OWNER_HERE, useValue: owner },
      { provide: LocalStore, useFactory: () => new LocalStore(), deps: [] },
    ],
  }).get(LocalStore);

describe('what waits in this browser', () => {
  let disk: Disk;
  let store: LocalStore;
  beforeEach(async () => {
    localStorage.removeItem('tactron.waiting');
    disk = new Disk();
    store = storeOn(disk);
    await store.absorb(base);
  });
  afterEach(() => localStorage.removeItem('tactron.waiting'));

  it('is given back in the order in which it was done, whatever its ids', async () => {
    for (const [i, id] of ['z', 'a', 'm'].entries()) {
      await store.keep('j', { changes: [change(id, i + 1)], ...none });
      await store.keep('j', { evidence: [piece(`e${id}`)], ...none });
    }
    expect((await store.outbox('j')).map((c) => c.id)).toEqual(['z', 'a', 'm']);
    expect((await store.waitingEvidence('j')).map((e) => e.id)).toEqual(['ez', 'ea', 'em']);
  });

  it('is missed when the browser has lost it: which job, how much', async () => {
    await store.keep('j', {
      changes: [change('c1', 1), change('c2', 2)],
      evidence: [piece('e1')],
      ...none,
    });
    expect(await store.lost()).toEqual([]);
    const emptied = storeOn(new Disk());
    expect(await emptied.lost()).toEqual([
      { id: 'j', tag: 'FM-LIFT', text: '2 changes, 1 reading or other record' },
    ]);
    emptied.forgetLost();
    expect(await emptied.lost()).toEqual([]);
  });

  it('of one person is no business of the next: neither missed nor told', async () => {
    const mine = storeOn(new Disk(), 'a');
    await mine.absorb(base);
    await mine.keep('j', { changes: [change('c1', 1)], ...none });
    expect(await mine.unsent()).toEqual({ changes: 1, records: 0 });
    expect(await storeOn(new Disk(), 'b').lost()).toEqual([]);
    expect((await storeOn(new Disk(), 'a').lost()).length).toBe(1);
    storeOn(new Disk(), 'a').forgetLost();
  });

  it('is not missed once it has been sent', async () => {
    await store.keep('j', { changes: [change('c1', 1)], evidence: [piece('e1')], ...none });
    await store.changeSent(change('c1', 1), 5);
    await store.evidenceSent('j', [piece('e1')]);
    expect(await storeOn(new Disk()).lost()).toEqual([]);
  });

  it('is not run over by a document that was read meanwhile', async () => {
    await store.keep('j', { changes: [change('c1', 1)], ...none });
    expect(
      await store.absorb({ ...base, revision: 9, job: { ...job, tag: 'theirs' } }),
    ).toBeFalse();
    expect((await store.base('j'))?.revision).toBe(4);
    await store.changeSent(change('c1', 1), 5);
    expect([(await store.base('j'))?.revision, (await store.base('j'))?.job.tag]).toEqual([
      5,
      'c1',
    ]);
    expect(await store.absorb({ ...base, revision: 3 })).toBeFalse();
    expect(await store.absorb({ ...base, revision: 9 })).toBeTrue();
  });

  it('keeps what the server refused, with the reason', async () => {
    await store.keep('j', { changes: [change('c1', 1)], ...none });
    await store.setAside('outbox', change('c1', 1), 'Does not fit at "tag": a tag.');
    expect([
      await store.outbox('j'),
      (await store.aside()).map((a) => [a.tag, a.why, a.item.id]),
    ]).toEqual([[], [['FM-LIFT', 'Does not fit at "tag": a tag.', 'c1']]]);
  });

  it('is asked about when another has changed the same, and not sent until it is answered', async () => {
    await store.keep('j', { changes: [change('c1', 1)], ...none });
    const theirs = {
      id: 't',
      revision: 5,
      patch: [{ op: 'replace' as const, path: '/tag', value: 'theirs' }],
      author,
      atClient: '',
    };
    await store.rebased('j', { ...job, tag: 'theirs' }, 5, [theirs]);
    expect((await store.load('j')).conflict?.mine.id).toBe('c1');
    await store.settle('j', ['c1'], [], null);
    const after = await store.load('j');
    expect([after.conflict, after.outbox, after.base?.job.tag]).toEqual([null, [], 'theirs']);
  });
});
