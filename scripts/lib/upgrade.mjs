import { join } from 'node:path';
import { root } from './run.mjs';

/** Brings the database to this release, as starting the server would. */
export async function upgradeFirst(postgres) {
  const { upgrade } = await import('../../server/dist/db/upgrade.js');
  await upgrade(postgres.ownerUrl, { pgBin: postgres.bin, folder: join(root, '.data/backups') });
}
