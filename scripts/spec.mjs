import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { root, show } from './lib/run.mjs';
import { nodePackages } from './lib/setup.mjs';

/** Runs spec files by themselves, without a browser: `npm run spec -- core/drive/behaviour.spec.ts [--filter="text"]`. */
nodePackages();
const files = process.argv.slice(2);
const missing = files.filter(
  (f) => !f.startsWith('--') && !f.includes('*') && !existsSync(join(root, f)),
);
if (files.length === 0 || missing.length) {
  console.error(
    missing.length
      ? `There is no ${missing.join(', ')}.`
      : 'Name a spec file of core, server or cli.',
  );
  process.exit(1);
}

const run = (env = process.env) =>
  show(
    process.execPath,
    ['--conditions=source', '--import', 'tsx', 'node_modules/jasmine/bin/jasmine.js', ...files],
    { env },
  );

/** Specs of the server have a database of their own. */
async function withDatabase() {
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { freshDatabase } = await import('./lib/testbed.mjs');
  const postgres = await startPostgres('pg-test');
  try {
    const urls = await freshDatabase(postgres, 'tactron_one_spec');
    return await run({
      ...process.env,
      TACTRON_DB_URL: urls.appUrl,
      TACTRON_DB_OWNER_URL: urls.ownerUrl,
      TSX_TSCONFIG_PATH: join(root, 'server/tsconfig.json'),
    });
  } finally {
    postgres.stop();
  }
}

const { code } = await (files.some((f) => f.startsWith('server/')) ? withDatabase() : run());
process.exit(code);
