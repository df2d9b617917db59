import { DataSource } from 'typeorm';
import { entities } from './entities.js';
import { Initial1790000000000 } from './migrations/1-initial.js';
import { Keeping1791000000000 } from './migrations/2-keeping.js';

/** Every release's migrations, in their order; a released one is never changed. */
export const migrations = [Initial1790000000000, Keeping1791000000000];

/** Opens a pool to PostgreSQL. The schema is made by migrations alone. */
export function createDataSource(url: string, poolSize = 10): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities,
    migrations,
    synchronize: false,
    poolSize,
    extra: { connectionTimeoutMillis: 3000 },
    poolErrorHandler: (error: Error) => console.error(`database: ${error.message}`),
  });
}

/** Brings the schema up to date as its owner. */
export async function migrate(ownerUrl: string): Promise<void> {
  const owner = createDataSource(ownerUrl, 1);
  await owner.initialize();
  try {
    await owner.runMigrations();
  } finally {
    await owner.destroy();
  }
}
