import { openDB, deleteDB } from 'idb';
import { moveStore, Shelf, type Act } from './shelf';

let serial = 0;
const change = (id: string, order = 1): Act => ({
  put: 'outbox',
  value: {
    id,
    jobId: 'j',
    order,
    patch: [],
    label: id,
    author: { name: 'A', role: '' },
    atClient: '',
  },
});
/** Something the browser cannot store: as when the disk is full, the whole write fails. */
const unstorable = (id: string): Act => {
  const act = change(id) as { put: 'outbox'; value: object };
  return {
    ...act,
    value: { ...act.value, patch: [{ op: 'add', path: '/x', value: () => 1 }] },
  } as Act;
};

describe('what this browser keeps', () => {
  let name: string;
  let shelf: Shelf;
  beforeEach(() => {
    name = `tactron-spec-${Date.now()}-${++serial}`;
    shelf = new Shelf(name);
  });
  afterEach(async () => {
    await shelf.close();
    await deleteDB(name);
  });
  const ids = async (on = shelf) => (await on.ofJob('outbox', 'j')).map((c) => c.id).sort();

  it('is there for the next window', async () => {
    expect(
      await shelf.write([
        change('a'),
        change('b'),
        { put: 'undo', value: { id: 'j', undo: [], redo: [] } },
      ]),
    ).toBeTrue();
    expect(await shelf.write([{ drop: 'outbox', key: 'a' }])).toBeTrue();
    await shelf.close();
    const next = new Shelf(name);
    expect([await ids(next), (await next.get('undo', 'j'))?.id, await next.all('made')]).toEqual([
      ['b'],
      'j',
      [],
    ]);
    await next.close();
  });

  it('that an older release kept is read in the format of this one: jobs, waiting changes, steps to undo', async () => {
    const old = await openDB(name, 2, {
      upgrade: (db) => {
        for (const store of [
          'base',
          'outbox',
          'evidence',
          'undo',
          'conflict',
          'made',
          'files',
          'aside',
          'profiles',
          'lists',
        ])
          db.createObjectStore(store, {
            keyPath:
              store === 'lists' ? 'name' : ['files', 'profiles'].includes(store) ? 'sha256' : 'id',
          }).createIndex('job', 'jobId');
      },
    });
    const wiring = { devices: {}, wires: {}, planHash: 'h' };
    const patch = [
      { op: 'replace', path: '/adopted', value: wiring },
      { op: 'replace', path: '/tag', value: 'T-2' },
    ];
    await old.put('base', { id: 'j', job: { version: 1, adopted: wiring, deviations: {} } });
    await old.put('outbox', { id: 'c', jobId: 'j', order: 1, patch });
    await old.put('undo', { id: 'j', undo: [{ label: 'x', back: patch, forth: [] }], redo: [] });
    old.close();
    const base = await shelf.get('base', 'j');
    expect([base?.job.version, base?.job.adopted?.device]).toEqual([2, 'drive']);
    const [waiting] = await shelf.ofJob('outbox', 'j');
    const upgraded = [{ ...patch[0], value: { device: 'drive', ...wiring } }, patch[1]];
    expect(waiting.patch).toEqual(upgraded as never);
    expect((await shelf.get('undo', 'j'))?.undo[0].back).toEqual(upgraded as never);
  });

  it('puts all of a write in, or none of it', async () => {
    expect(await shelf.write([change('a'), unstorable('b')])).toBeFalse();
    await shelf.close();
    expect(await ids(new Shelf(name))).toEqual([]);
  });

  it('stays in this window when there is no room, is read back as if it were kept, and is kept once there is room', async () => {
    await shelf.write([change('a')]);
    await shelf.write([unstorable('b'), { drop: 'outbox', key: 'a' }]);
    expect([await ids(), shelf.unkept, await shelf.get('outbox', 'a')]).toEqual([
      ['b'],
      true,
      undefined,
    ]);
    expect(await shelf.write([change('b')])).toBeTrue();
    expect([await ids(), shelf.unkept]).toEqual([['b'], false]);
    await shelf.close();
    expect(await ids(new Shelf(name))).toContain('b');
  });

  it('works in this window alone where the browser gives no store at all', async () => {
    const open = indexedDB.open;
    spyOn(indexedDB, 'open').and.throwError('not allowed here');
    const alone = new Shelf(`${name}-none`);
    expect([await alone.write([change('a')]), await ids(alone), alone.unkept]).toEqual([
      false,
      ['a'],
      true,
    ]);
    indexedDB.open = open;
  });

  it('takes over what an earlier release kept', async () => {
    const old = await openDB(name, 1, {
      upgrade: (db) => {
        db.createObjectStore('base', { keyPath: 'id' });
        for (const store of ['outbox', 'evidence'])
          db.createObjectStore(store, { keyPath: 'id' }).createIndex('job', 'jobId');
        db.createObjectStore('undo', { keyPath: 'id' });
      },
    });
    await old.put('outbox', { id: 'c1', jobId: 'j', order: 1, patch: [] });
    await old.put('evidence', { id: 'e1', jobId: 'j', kind: 'keyed' });
    old.close();
    expect([await ids(), (await shelf.ofJob('evidence', 'j')).length]).toEqual([['c1'], 1]);
  });

  it('that is deleted under an open window is opened anew, and the window is told so that it puts back what it holds', async () => {
    await shelf.write([change('a')]);
    const told = new Promise<void>((done) => (shelf.onDeleted = done));
    await deleteDB(name);
    await told;
    expect(await ids()).toEqual([]);
    expect(await shelf.write([change('b')])).toBeTrue();
    expect(await ids()).toEqual(['b']);
  });

  it('goes whole from the one store of earlier releases into that of the person who signs in first', async () => {
    await shelf.write([change('a'), change('b')]);
    await shelf.close();
    await moveStore(name, `${name}.p`);
    const own = new Shelf(`${name}.p`);
    expect([await ids(own), (await indexedDB.databases()).some((db) => db.name === name)]).toEqual([
      ['a', 'b'],
      false,
    ]);
    await own.close();
    await deleteDB(`${name}.p`);
  });
});
