import { nodePackages } from './lib/setup.mjs';

/** npm run backup [-- FILE]: everything the database holds, in one file. Works while the application runs. */
try {
  nodePackages();
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { backup } = await import('./lib/backup.mjs');
  const postgres = await startPostgres();
  try {
    console.log(`Backup: ${backup(postgres, process.argv[2])}`);
  } finally {
    postgres.stop();
  }
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
