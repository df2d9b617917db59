import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { freshDatabase } from '../../../scripts/lib/testbed.mjs';

/** The cluster the test script has started. */
export interface Cluster {
  readonly bin: string;
  readonly folder: string;
  readonly ownerUrl: string;
}
export interface Urls {
  readonly ownerUrl: string;
  readonly appUrl: string;
}

export const cluster = (): Promise<Cluster> => startPostgres('pg-test') as Promise<Cluster>;

/** An empty database of its own on that cluster. */
export const freshUrls = async (name: string): Promise<Urls> =>
  (await freshDatabase(await cluster(), name)) as Urls;
