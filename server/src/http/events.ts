import type { Request, Response } from 'express';
import pg from 'pg';
import type { Present } from './presence.js';

const MOST_WAITING = 256_000;
/** Streams that one session may hold open: a person has no more windows. */
const MOST_STREAMS = 12;
const BEAT_MS = 20_000;

/** Whose a stream is, while accounts are on. */
export interface StreamOwner {
  readonly session: string;
  readonly accountId: string;
}

/** Which of these owners may still hear of which jobs: their session stands and the site is theirs. */
export type StillOpen = (
  streams: readonly (StreamOwner & { readonly jobId: string })[],
) => Promise<readonly boolean[]>;

/** Tells open windows of changes, wherever they were made: PostgreSQL notifies, server-sent events carry it on. */
export class JobEvents {
  private readonly listeners = new Map<string, Set<Response>>();
  private client: pg.Client | undefined;
  private closed = false;
  private beat: NodeJS.Timeout;
  private readonly owners = new Map<Response, StreamOwner & { readonly jobId: string }>();

  /** @param stillOpen asked at every beat, where accounts are on */
  constructor(
    private readonly url: string,
    private readonly stillOpen?: StillOpen,
    beatMs = BEAT_MS,
  ) {
    this.beat = setInterval(() => void this.onBeat(), beatMs);
    void this.connect();
  }

  /** Ends the streams of a session, or of all sessions of an account but one. */
  end(which: { readonly session: string } | { readonly accountId: string; except?: string }): void {
    for (const [res, owner] of this.owners) {
      const meant =
        'session' in which
          ? owner.session === which.session
          : owner.accountId === which.accountId && owner.session !== which.except;
      if (meant) res.end();
    }
  }

  private async onBeat(): Promise<void> {
    this.each((res) => this.tell(res, ': beat\n\n'));
    const streams = [...this.owners];
    if (!this.stillOpen || streams.length === 0) return;
    // A database that does not answer ends no stream: it will be asked again.
    const open = await this.stillOpen(streams.map(([, owner]) => owner)).catch(() => []);
    streams.forEach(([res], i) => open[i] === false && res.end());
  }

  /** Tells everybody who listens to a job who is there. */
  tellPresent(jobId: string, present: readonly Present[]): void {
    const event = `event: presence\ndata: ${JSON.stringify({ present })}\n\n`;
    this.listeners.get(jobId)?.forEach((res) => this.tell(res, event));
  }

  /** Streams the changes of one job to a window. */
  stream(jobId: string, req: Request, res: Response, owner?: StreamOwner): void {
    if (owner) this.own(res, { ...owner, jobId });
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-cache, no-transform',
      'x-accel-buffering': 'no',
    });
    res.write('retry: 2000\n\n');
    const set = this.listeners.get(jobId) ?? new Set();
    this.listeners.set(jobId, set.add(res));
    req.on('close', () => {
      set.delete(res);
      this.owners.delete(res);
      if (set.size === 0) this.listeners.delete(jobId);
    });
  }

  /** A session with too many streams lets go of its oldest. */
  private own(res: Response, owner: StreamOwner & { readonly jobId: string }): void {
    const own = [...this.owners].filter(([, o]) => o.session === owner.session);
    for (const [oldest] of own.slice(0, Math.max(0, own.length + 1 - MOST_STREAMS))) oldest.end();
    this.owners.set(res, owner);
  }

  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.beat);
    this.each((res) => res.end());
    await this.client?.end().catch(() => undefined);
  }

  private each(tell: (res: Response) => void): void {
    for (const set of this.listeners.values()) set.forEach(tell);
  }

  /** A window that does not read is let go rather than waited for; it asks again, and reads what it missed. */
  private tell(res: Response, event: string): void {
    if (res.writableEnded) return;
    if (res.writableLength > MOST_WAITING) res.destroy();
    else res.write(event);
  }

  private async connect(): Promise<void> {
    if (this.closed) return;
    const client = new pg.Client({ connectionString: this.url });
    this.client = client;
    const again = (): void => void setTimeout(() => void this.connect(), 1000).unref();
    let lost = false;
    client.on('error', () => {
      if (!lost && !this.closed) again();
      lost = true;
    });
    client.on('notification', ({ payload = '' }) => {
      const [jobId, what] = payload.split(' ');
      const event =
        what === 'evidence'
          ? 'event: evidence\ndata: {}\n\n'
          : `event: change\nid: ${what}\ndata: {"revision":${Number(what)}}\n\n`;
      this.listeners.get(jobId)?.forEach((res) => this.tell(res, event));
    });
    try {
      await client.connect();
      await client.query('LISTEN tactron_job');
      this.each((res) => this.tell(res, 'event: resync\ndata: {}\n\n'));
    } catch {
      if (!lost) again();
      lost = true;
    }
  }
}
