import type { Request, Response } from 'express';
import pg from 'pg';

const MOST_WAITING = 256_000;

/** Tells open windows of changes, wherever they were made: PostgreSQL notifies, server-sent events carry it on. */
export class JobEvents {
  private readonly listeners = new Map<string, Set<Response>>();
  private client: pg.Client | undefined;
  private closed = false;
  private beat: NodeJS.Timeout;

  constructor(private readonly url: string) {
    this.beat = setInterval(() => this.each((res) => this.tell(res, ': beat\n\n')), 20_000);
    void this.connect();
  }

  /** Streams the changes of one job to a window. */
  stream(jobId: string, req: Request, res: Response): void {
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
      if (set.size === 0) this.listeners.delete(jobId);
    });
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
      this.each((res) => res.write('event: resync\ndata: {}\n\n'));
    } catch {
      if (!lost) again();
      lost = true;
    }
  }
}
