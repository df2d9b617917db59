import { createServer, type Server } from 'node:http';
import { resolve } from 'node:path';
import { seedProfiles } from './catalogue/routes.js';
import { createDataSource, migrate } from './db/data-source.js';
import { createApp } from './http/app.js';
import { JobEvents } from './http/events.js';

const env = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start the application with "npm start"`);
  return value;
};

/** Listens on the port, or on the next free one. */
async function listen(server: Server, port: number): Promise<number> {
  for (let at = port; at < port + 50; at++) {
    const ok = await new Promise<boolean>((done, fail) => {
      const refused = (error: NodeJS.ErrnoException): void => (error.code === 'EADDRINUSE' ? done(false) : fail(error));
      server.once('error', refused);
      server.listen(at, '127.0.0.1', () => {
        server.off('error', refused);
        done(true);
      });
    });
    if (ok) return at;
  }
  throw new Error(`no free port from ${port} on`);
}

async function main(): Promise<void> {
  await migrate(env('TACTRON_DB_OWNER_URL'));
  const url = env('TACTRON_DB_URL');
  const db = await createDataSource(url).initialize();
  await seedProfiles(db);
  const events = new JobEvents(url);
  const server = createServer(createApp(db, events, resolve(env('TACTRON_WEB'))));
  const port = await listen(server, Number(process.env['TACTRON_PORT'] ?? 4310));
  console.log(`Tactron is at http://127.0.0.1:${port}/`);
  process.send?.({ port });
  const stop = async (): Promise<void> => {
    await events.close();
    server.close();
    server.closeAllConnections();
    await db.destroy().catch(() => undefined);
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, () => void stop());
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
