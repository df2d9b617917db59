import { startPostgres } from './postgres.mjs';
import { serve } from './serve.mjs';
import { loadDemo } from './demo.mjs';

/** A database of its own on the test cluster, empty. */
export async function freshDatabase(postgres, name) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: postgres.maintenanceUrl });
  await client.connect();
  await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  const at = (url) => url.replace(/\/[^/]+$/, `/${name}`);
  return { ownerUrl: at(postgres.ownerUrl), appUrl: at(postgres.appUrl) };
}

/** A server on an empty database with the demo data, and a browser; for journeys and pictures. */
export async function withDemo(name, use) {
  const postgres = await startPostgres('pg-test');
  let server;
  try {
    const urls = await freshDatabase(postgres, name);
    server = await serve(postgres, { port: 4410, quiet: true, urls });
    await loadDemo(server.url);
    return await use(server.url, { postgres, urls, pid: server.child.pid });
  } finally {
    await server?.stop();
    postgres.stop();
  }
}
