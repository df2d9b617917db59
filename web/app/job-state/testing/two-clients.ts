import { Injector } from '@angular/core';
import {
  applyPatch,
  disjoint,
  emptyJob,
  hashOf,
  PatchError,
  type Evidence,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { Api, ApiError } from '../api';
import { Courier, NEWS_CHANNEL } from '../courier';
import { JobActions } from '../job.actions';
import { emptyState, type JobState, type ServerChange } from '../job.model';
import { jobFeature } from '../job.reducer';
import { LocalStore, SHELF } from '../local-store';
import { OWNER_HERE } from '../owner';
import { actionOf, keepStep, type Step } from '../steps';
import { Disk, MapShelf } from './map-shelf';

const id = '11111111-1111-4111-8111-111111111111';
const start = (): Job =>
  emptyJob({
    id,
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: 'sieve',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'a'.repeat(64) },
  });

/** Numbers that look random and are the same for the same seed (Park and Miller, CACM 31 (1988) 1192). */
function numbers(seed: number): (below: number) => number {
  let state = (seed * 7919 + 1) % 2147483647;
  return (below) => (state = (state * 48271) % 2147483647) % below;
}

/** The server's side of saving, as it is promised: known id, revision, patch, in this order; evidence only grows. */
class ModelServer {
  job = start();
  revision = 0;
  readonly changes: ServerChange[] = [];
  readonly evidence: Evidence[] = [];

  change(change: Omit<ServerChange, 'revision'> & { base: number }): {
    revision: number;
    since?: ServerChange[];
  } {
    const between = (revision: number): ServerChange[] =>
      this.changes.filter((c) => c.revision > change.base && c.revision < revision);
    const known = this.changes.find((c) => c.id === change.id);
    if (known) return { revision: known.revision, since: between(known.revision) };
    const since = between(Infinity);
    const stale = new ApiError(
      412,
      'changed elsewhere',
      structuredClone({ revision: this.revision, changes: since }),
    );
    if (since.some((theirs) => !disjoint(theirs.patch, change.patch))) throw stale;
    try {
      this.job = applyPatch(this.job, change.patch);
    } catch (error) {
      if (!(error instanceof PatchError)) throw error;
      throw since.length ? stale : new ApiError(400, error.message);
    }
    this.revision++;
    this.changes.push({
      id: change.id,
      revision: this.revision,
      patch: structuredClone(change.patch),
      author: change.author,
      atClient: change.atClient,
    });
    return { revision: this.revision, since };
  }

  addEvidence(list: readonly Evidence[]): Evidence[] {
    return list.map((e) => {
      const known = this.evidence.find((k) => k.id === e.id);
      if (known) return known;
      const stored = { ...structuredClone(e), hash: `h${this.evidence.length}` } as Evidence;
      this.evidence.push(stored);
      return stored;
    });
  }
}

/** How the network treats one call. */
type Weather = 'fair' | 'lostBefore' | 'lostAfter' | 'twice';

/** One window on a disk that outlives it, with the real store, courier and reducer. */
class Client {
  state: JobState = emptyState;
  readonly told = new Set<string>();
  readonly dropped = new Set<string>();
  private readonly local: LocalStore;
  private readonly courier: Courier;
  private steps = 0;
  /** For each change the revision its author had seen when it was made, or when the same field was asked about. */
  readonly seen = new Map<string, number>();

  constructor(
    private readonly name: string,
    private readonly server: ModelServer,
    private readonly disk: Disk,
    private readonly weather: () => Weather,
  ) {
    const injector = Injector.create({
      providers: [
        { provide: SHELF, useFactory: () => new MapShelf(disk) },
        { provide: NEWS_CHANNEL, useValue: null },
        { provide: OWNER_HERE, useValue: '' },
        { provide: Api, useValue: this.api() },
        { provide: LocalStore, useFactory: () => new LocalStore(), deps: [] },
        { provide: Courier, useFactory: () => new Courier(), deps: [] },
      ],
    });
    this.local = injector.get(LocalStore);
    this.courier = injector.get(Courier);
    this.courier.news.subscribe((news) => {
      if (news.kind === 'drained') return;
      if (news.kind === 'saved') this.told.add(news.change.id);
      if (news.kind === 'refused') this.dropped.add(news.changeId);
      this.reduce(actionOf(news));
    });
  }

  private api(): Partial<Record<keyof Api, unknown>> {
    const over = <T>(act: () => T): Promise<T> => {
      const weather = this.weather();
      if (weather === 'lostBefore') return Promise.reject(new ApiError(0, 'lost'));
      if (weather === 'twice') tried(act);
      try {
        const answer = act();
        return weather === 'lostAfter'
          ? Promise.reject(new ApiError(0, 'lost'))
          : Promise.resolve(structuredClone(answer));
      } catch (error) {
        return Promise.reject(error as Error);
      }
    };
    return {
      job: () =>
        over(() => ({ job: this.server.job, revision: this.server.revision, archived: false })),
      change: (_id: string, change: Parameters<ModelServer['change']>[0]) =>
        over(() => this.server.change(change)),
      addEvidence: (_id: string, list: readonly Evidence[]) =>
        over(() => this.server.addEvidence(list)),
    };
  }

  private reduce(action: Parameters<typeof jobFeature.reducer>[1]): void {
    this.state = jobFeature.reducer(this.state, action);
  }

  async step(action: Step): Promise<void> {
    const before = this.state.outbox.map((c) => c.id);
    if (action.type === JobActions.keepMine.type) this.noteAnswer();
    this.reduce(action);
    const now = new Set(this.state.outbox.map((c) => c.id));
    for (const changeId of now)
      if (!this.seen.has(changeId)) this.seen.set(changeId, this.state.revision);
    before
      .filter((changeId) => !now.has(changeId))
      .forEach((changeId) => this.dropped.add(changeId));
    this.reduce(JobActions.kept({ inBrowser: await keepStep(this.local, action, this.state) }));
  }

  private noteAnswer(): void {
    const mine = this.state.conflict?.mine;
    for (const c of this.state.outbox)
      if (mine && (c.id === mine.id || !disjoint(c.patch, mine.patch)))
        this.seen.set(c.id, this.state.revision);
  }

  edit(recipe: (draft: Job) => void): Promise<void> {
    const after = structuredClone(this.state.job as Job);
    recipe(after);
    return this.step(JobActions.edit({ after, label: 'edit', ...this.stamp() }));
  }

  stamp() {
    return {
      changeId: `${this.name}.${++this.steps}.${this.state.revision}.${this.told.size}.${this.dropped.size}`,
      author: { name: this.name, role: '' },
      atClient: '2026-01-01T00:00:00Z',
    };
  }

  async send(): Promise<void> {
    await this.courier.run();
    this.courier.rest();
  }

  /** As when the server tells of a change: read anew where nothing waits. */
  async hear(): Promise<void> {
    const { job, revision, changes, evidence } = structuredClone(this.server);
    const since = changes.filter((c) => c.revision > this.state.revision);
    const taken = await this.local.absorb({
      id,
      job,
      revision,
      archived: false,
      profile: {} as never,
      evidence,
    });
    if (taken && revision > this.state.revision)
      this.reduce(JobActions.stale({ job, revision, changes: since }));
    this.reduce(JobActions.evidenceLoaded({ evidence }));
  }

  /** A new window on the same disk; what was only in the old one's memory is gone. */
  async restarted(): Promise<Client> {
    const next = new Client(`${this.name}'`, this.server, this.disk, this.weather);
    for (const changeId of this.told) next.told.add(changeId);
    for (const changeId of this.dropped) next.dropped.add(changeId);
    for (const [changeId, revision] of this.seen) next.seen.set(changeId, revision);
    await next.open();
    return next;
  }

  async open(): Promise<void> {
    const { base, made: _made, evidence: waitingEvidence, ...kept } = await this.local.load(id);
    const { job, revision, evidence } = structuredClone(this.server);
    const fresh = { id, job, revision, archived: false, profile: {} as never, evidence };
    if (!base) await this.local.absorb(fresh);
    this.reduce(JobActions.open({ id }));
    this.reduce(
      JobActions.opened({
        ...(base ?? fresh),
        ...kept,
        waitingEvidence,
        made: false,
        online: false,
      }),
    );
  }

  answer(mine: boolean): Promise<void> {
    const waiting = { waiting: this.state.outbox.map((c) => c.id) };
    return this.step(mine ? JobActions.keepMine(waiting) : JobActions.takeTheirs(waiting));
  }

  get quiet(): boolean {
    return (
      this.state.outbox.length + this.state.waitingEvidence.length === 0 &&
      !this.state.conflict &&
      this.state.revision === this.server.revision
    );
  }
}

const tried = (act: () => unknown): void => {
  try {
    act();
  } catch {
    // the first of two; the second is answered
  }
};

/** What went wrong in a run; nothing in a run that held. */
export type Wrongs = string[];

/**
 * Two people on one job: random edits, undos and readings, calls lost before or after the server, sent twice, windows closed and
 * opened. In the end both have the server's document, nothing acknowledged is lost, nothing is there twice, evidence has only grown.
 */
export async function twoClients(seed: number, steps = 60): Promise<Wrongs> {
  const wrongs: Wrongs = [];
  const next = numbers(seed);
  let storm = true;
  const weather = (): Weather =>
    storm
      ? (['fair', 'fair', 'fair', 'lostBefore', 'lostAfter', 'twice'] as const)[next(6)]
      : 'fair';
  const server = new ModelServer();
  const clients = [
    new Client('A', server, new Disk(), weather),
    new Client('B', server, new Disk(), weather),
  ];
  for (const c of clients) await c.open();
  let grown: Evidence[] = [];
  let readings = 0;
  for (let at = 0; at < steps; at++) {
    const who = next(2);
    wrongs.push(...((await oneStep(clients, who, next, () => ++readings, `${seed}.${at}`)) ?? []));
    if (grown.some((e, i) => server.evidence[i]?.id !== e.id))
      wrongs.push(`step ${at}: evidence did not only grow`);
    grown = [...server.evidence];
    for (const c of clients)
      for (const changeId of c.told)
        if (!server.changes.some((s) => s.id === changeId))
          wrongs.push(`step ${at}: ${changeId} was acknowledged and is not there`);
  }
  storm = false;
  for (let round = 0; round < 60 && !clients.every((c) => c.quiet); round++) {
    for (const c of clients) {
      if (c.state.conflict) await c.answer(next(2) === 0);
      await c.send();
      await c.hear();
    }
  }
  return [...wrongs, ...compared(server, clients, readings)];
}

async function oneStep(
  clients: Client[],
  who: number,
  next: (below: number) => number,
  reading: () => number,
  mark: string,
): Promise<Wrongs | void> {
  const c = clients[who];
  if (c.state.conflict && next(2)) return c.answer(next(2) === 0);
  switch (next(9)) {
    case 0:
      return c.step(JobActions.undo(c.stamp()));
    case 1:
      return c.step(JobActions.redo(c.stamp()));
    case 2:
      return c.step(
        JobActions.record({
          evidence: { id: `e${reading()}`, jobId: id, kind: 'keyed' } as Evidence,
        }),
      );
    case 3: {
      const kept = [...c.state.outbox, ...c.state.waitingEvidence].map((x) => x.id);
      clients[who] = await c.restarted();
      const there = new Set(
        [...clients[who].state.outbox, ...clients[who].state.waitingEvidence].map((x) => x.id),
      );
      return kept
        .filter((x) => !there.has(x))
        .map((x) => `${mark}: ${x} was kept here and is gone after a restart`);
    }
    case 4:
      return c.hear();
    case 5:
    case 6:
      return c.send();
    default:
      return c.edit(edits[next(edits.length)](mark, next(3)));
  }
}

const edits: readonly ((mark: string, n: number) => (draft: Job) => void)[] = [
  (mark) => (d) => (d.tag = mark),
  (mark) => (d) => (d.machine = mark),
  (_mark, n) => (d) => (d.scheme.maxHz = 40 + n),
  (mark, n) => (d) => (d.scripts[`s${n}`] = { ord: n, name: mark, acts: [] }),
  (_mark, n) => (d) => delete d.scripts[`s${n}`],
];

function compared(server: ModelServer, clients: readonly Client[], readings: number): Wrongs {
  const wrongs: Wrongs = [];
  for (const [i, c] of clients.entries()) {
    if (!c.quiet)
      wrongs.push(
        `client ${i} never came to rest: ${c.state.outbox.length} changes, ${c.state.waitingEvidence.length} readings wait`,
      );
    if (hashOf(c.state.job) !== hashOf(server.job))
      wrongs.push(`client ${i} ends with another document`);
    if (hashOf(c.state.base) !== hashOf(server.job))
      wrongs.push(`client ${i} takes another document for the server's`);
    const lost = [...c.told].filter((changeId) => !server.changes.some((s) => s.id === changeId));
    if (lost.length) wrongs.push(`client ${i}: acknowledged and lost: ${lost.join(', ')}`);
  }
  wrongs.push(...silent(server, clients));
  const replayed = server.changes.reduce(
    (doc, c) => applyPatch(doc, c.patch as Operation[]),
    start(),
  );
  if (hashOf(replayed) !== hashOf(server.job)) wrongs.push('the changes do not make the document');
  if (new Set(server.changes.map((c) => c.id)).size !== server.changes.length)
    wrongs.push('a change is there twice');
  const ids = server.evidence.map((e) => e.id);
  if (new Set(ids).size !== ids.length || ids.length !== readings)
    wrongs.push(`${readings} readings were taken and ${ids.length} are there`);
  return wrongs;
}

/** Changes that went over what another person had written at the same place, without their author having been asked. */
function silent(server: ModelServer, clients: readonly Client[]): Wrongs {
  return server.changes.flatMap((c) => {
    const seen =
      clients.map((client) => client.seen.get(c.id)).find((revision) => revision !== undefined) ??
      0;
    const over = server.changes.find(
      (d) =>
        d.revision > seen &&
        d.revision < c.revision &&
        !sameAuthor(c, d) &&
        !disjoint(c.patch, d.patch),
    );
    return over ? [`${c.id} ran over ${over.id} in silence`] : [];
  });
}

const sameAuthor = (x: ServerChange, y: ServerChange): boolean =>
  x.author.name[0] === y.author.name[0];
