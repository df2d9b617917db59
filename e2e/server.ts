import { loadDemo } from '../scripts/lib/demo.mjs';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { serve } from '../scripts/lib/serve.mjs';
import { freshDatabase } from '../scripts/lib/testbed.mjs';

/** One server on an empty database with the demo data for all journeys. */
export default async function setUp(): Promise<() => Promise<void>> {
  const postgres = await startPostgres('pg-test');
  const urls = await freshDatabase(postgres, 'tactron_e2e');
  const server = await serve(postgres, { port: 4510, quiet: true, urls });
  await loadDemo(server.url);
  process.env['TACTRON_URL'] = server.url;
  return async () => {
    await server.stop();
    postgres.stop();
  };
}
