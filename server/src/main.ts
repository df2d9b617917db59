import { createServer as createHttpServer, type Server } from 'node:http';
import { createServer as createHttpsServer } from 'node:https';
import { resolve } from 'node:path';
import { openAccounts, type Accounts } from './accounts/sessions.js';
import { seedProfiles } from './catalogue/routes.js';
import { createDataSource } from './db/data-source.js';
import { upgrade } from './db/upgrade.js';
import { signingKey } from './evidence/seal.js';
import { createApp } from './http/app.js';
import { JobEvents } from './http/events.js';
import { listening, type Listening } from './http/listening.js';

const env = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start the application with "npm start"`);
  return value;
};

/** Listens on the port; alone on this machine on the next free one, where others know an address only on that one. */
async function listen(server: Server, { host, port, tls }: Listening): Promise<number> {
  for (let at = port; at < port + (tls ? 1 : 50); at++) {
    const ok = await new Promise<boolean>((done, fail) => {
      const refused = (error: NodeJS.ErrnoException): void =>
        error.code === 'EADDRINUSE' ? done(false) : fail(error);
      server.once('error', refused);
      server.listen(at, host, () => {
        server.off('error', refused);
        done(true);
      });
    });
    if (ok) return at;
  }
  throw new Error(
    tls
      ? `port ${port} is taken: set TACTRON_PORT to another, or stop what uses it`
      : `no free port from ${port} on`,
  );
}

/** A request that does not begin is let go here; a body that does not arrive, by the application (`patient`). */
const patience = {
  requestTimeout: 0,
  headersTimeout: 15_000,
  connectionsCheckingInterval: 5_000,
};

/** How long requests under way may take to their end when the server is stopped, ms. */
const LAST_MS = 10_000;

/** Takes no more requests, lets those under way come to their end, and then lets go of what is left. */
async function finished(server: Server): Promise<void> {
  const closed = new Promise<void>((done) => server.close(() => done()));
  server.closeIdleConnections();
  const late = setTimeout(() => server.closeAllConnections(), LAST_MS);
  await closed;
  clearTimeout(late);
}

/** What is over is taken away now and once a day. */
function keepClean(accounts: Accounts): void {
  const prune = (): void =>
    void accounts.prune().catch((error: Error) => console.error(`pruning: ${error.message}`));
  prune();
  setInterval(prune, 86_400_000).unref();
}

async function main(): Promise<void> {
  const settings = listening(process.env);
  const place = process.env['TACTRON_PG_BIN'] && process.env['TACTRON_BACKUPS'];
  const upgraded = await upgrade(
    env('TACTRON_DB_OWNER_URL'),
    place ? { pgBin: env('TACTRON_PG_BIN'), folder: env('TACTRON_BACKUPS') } : undefined,
  );
  if (upgraded.dump)
    console.log(
      `The data of an older release were dumped to ${upgraded.dump} and brought to this one.`,
    );
  for (const { id, path } of upgraded.unreadable)
    console.error(
      `Job ${id} does not fit this release at "${path}". It is kept as it is; export it with the release that wrote it.`,
    );
  const url = env('TACTRON_DB_URL');
  const db = await createDataSource(url).initialize();
  await seedProfiles(db);
  const accounts = settings.accounts
    ? openAccounts(url, process.env['TACTRON_SESSION_SECRET'])
    : undefined;
  const events = new JobEvents(url, accounts?.stillOpen);
  if (accounts) keepClean(accounts);
  const app = createApp({
    db,
    events,
    webFolder: resolve(env('TACTRON_WEB')),
    accounts,
    open: settings.tls !== undefined,
    key: signingKey(process.env['TACTRON_SIGNING_KEY']),
  });
  const server: Server = settings.tls
    ? createHttpsServer({ ...patience, ...settings.tls }, app)
    : createHttpServer(patience, app);
  const port = await listen(server, settings);
  console.log(`Tactron is at ${settings.tls ? 'https' : 'http'}://${settings.host}:${port}/`);
  process.send?.({ port });
  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    await events.close();
    await finished(server);
    await accounts?.close().catch(() => undefined);
    await db.destroy().catch(() => undefined);
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
    process.once(signal, () => void stop());
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
