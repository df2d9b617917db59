import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { DataSource } from 'typeorm';
import { openAccounts } from '../accounts/sessions.js';
import { seedProfiles } from '../catalogue/routes.js';
import { createDataSource } from '../db/data-source.js';
import { upgrade } from '../db/upgrade.js';
import { createApp } from '../http/app.js';
import { JobEvents } from '../http/events.js';

/** Addresses of the test database, made by the test script. */
export function databaseUrls(): { app: string; owner: string } {
  const [app, owner] = [process.env['TACTRON_DB_URL'], process.env['TACTRON_DB_OWNER_URL']];
  if (!app || !owner)
    throw new Error('run these tests with "npm test": it starts a PostgreSQL for them');
  return { app, owner };
}

export interface Answer {
  readonly status: number;
  readonly body: Record<string, never>;
  readonly type: string;
  readonly headers: Headers;
}

export interface Bed {
  readonly db: DataSource;
  readonly url: string;
  /** Signs the cookies of sessions. */
  readonly secret: string;
  close(): Promise<void>;
  ask(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<Answer>;
}

/** A server of its own on the migrated test database; with accounts on when asked. */
export async function openBed({
  accounts: on = false,
  secret = randomUUID() as string,
} = {}): Promise<Bed> {
  const { app, owner } = databaseUrls();
  await upgrade(owner);
  const db = await createDataSource(app).initialize();
  await seedProfiles(db);
  const accounts = on ? openAccounts(app, secret) : undefined;
  const events = new JobEvents(app, accounts?.stillOpen);
  const server: Server = createServer(
    { requestTimeout: 0, headersTimeout: 600, connectionsCheckingInterval: 100 },
    createApp({
      db,
      events,
      accounts,
      patience: { windowMs: 400, leastBytes: 1000 },
      printer: new URL('./source-worker.mjs', import.meta.url),
    }),
  );
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    db,
    url,
    secret,
    close: async () => {
      await events.close();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await accounts?.close();
      await db.destroy();
    },
    ask: async (method, path, body, headers = {}) => {
      const text =
        typeof body === 'string' ? body : body === undefined ? undefined : JSON.stringify(body);
      const answer = await fetch(`${url}/api/${path}`, {
        method,
        headers: {
          ...(text === undefined ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        body: text,
      });
      return {
        status: answer.status,
        headers: answer.headers,
        type: answer.headers.get('content-type') ?? '',
        body: (await answer.json().catch(() => ({}))) as Record<string, never>,
      };
    },
  };
}
