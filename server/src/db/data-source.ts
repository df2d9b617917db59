import pg from 'pg';
import { DataSource } from 'typeorm';
import { entities } from './entities.js';
import { Initial1790000000000 } from './migrations/1-initial.js';
import { Keeping1791000000000 } from './migrations/2-keeping.js';
import { Format21792000000000 } from './migrations/3-format-2.js';
import { Origins1793000000000 } from './migrations/4-origins.js';
import { Words1794000000000 } from './migrations/5-words.js';

/** Every release's migrations, in their order; a released one is never changed. */
export const migrations = [
  Initial1790000000000,
  Keeping1791000000000,
  Format21792000000000,
  Origins1793000000000,
  Words1794000000000,
];

/**
 * A connection whose end is told to whoever waits on it and to nobody else: a database that is killed sends more than one error
 * on it, the later ones after the pool has let go of it, and an error nobody hears ends the process.
 */
export class OutlivingClient extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}

/** Opens a pool to PostgreSQL. The schema is made by migrations alone. */
export function createDataSource(url: string, poolSize = 10): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities,
    migrations,
    synchronize: false,
    poolSize,
    extra: { connectionTimeoutMillis: 3000, Client: OutlivingClient },
    poolErrorHandler: (error: Error) => console.error(`database: ${error.message}`),
  });
}
