import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { root } from './lib/run.mjs';
import { buildAll, nodePackages } from './lib/setup.mjs';

/** npm run account -- --login NAME --name "Full name": the first administrator, or a new password for one who has lost it. */
try {
  nodePackages();
  buildAll();
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { upgradeFirst } = await import('./lib/upgrade.mjs');
  const postgres = await startPostgres();
  try {
    await upgradeFirst(postgres);
    const env = { ...process.env, TACTRON_DB_OWNER_URL: postgres.ownerUrl };
    const { status } = spawnSync(
      process.execPath,
      [join(root, 'server/dist/accounts/command.js'), ...process.argv.slice(2)],
      { stdio: 'inherit', env },
    );
    process.exitCode = status ?? 1;
  } finally {
    postgres.stop();
  }
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
