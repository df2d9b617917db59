import { nodePackages } from './lib/setup.mjs';

/** npm run restore -- FILE [--replace]: a backup in the place of what the database holds; what was there is dumped first. */
try {
  nodePackages();
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { restore } = await import('./lib/backup.mjs');
  const args = process.argv.slice(2);
  const postgres = await startPostgres();
  try {
    const { count, before } = await restore(
      postgres,
      args.find((a) => !a.startsWith('--')),
      { replace: args.includes('--replace') },
    );
    console.log(
      `Restored: ${count} jobs.${before ? ` What was there before is in ${before}.` : ''} Start with "npm start".`,
    );
  } finally {
    postgres.stop();
  }
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
