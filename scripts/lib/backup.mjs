import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { spawnSync } from 'node:child_process';
import { writeWhole } from './postgres.mjs';
import { root, run } from './run.mjs';

const folder = join(root, '.data/backups');
const keyFile = (dump) => `${dump}.key`;
const stamp = () => new Date().toISOString().replace(/[:.]/g, '-');

/** Writes everything the database holds into one file; a file that stands is whole. @returns its path */
export function backup(
  postgres,
  file = join(folder, `tactron-${stamp()}.dump`),
  url = postgres.ownerUrl,
) {
  const path = resolve(file);
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  const half = `${path}.part`;
  try {
    run(`${postgres.bin}/pg_dump`, ['--format=custom', `--file=${half}`, `--dbname=${url}`]);
    renameSync(half, path);
    // The key that signs goes with the data it signed; passwords are made anew where a backup is restored.
    if (postgres.signingKey)
      writeWhole(keyFile(path), JSON.stringify({ signing: postgres.signingKey }));
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  }
  return path;
}

/**
 * Puts a backup in the place of what the database holds now: whole, or not at all. What was there is dumped first.
 *
 * @param replace needed when there are jobs already
 * @returns how many jobs there are now, and the dump of what was there
 * @throws when the file is no backup, is of a newer PostgreSQL, or there are jobs and `replace` is not said
 */
export async function restore(postgres, file, { replace = false, database = 'tactron' } = {}) {
  const path = resolve(file ?? '');
  if (!file || !existsSync(path))
    throw new Error(`There is no backup at ${file || '(say which file)'}.`);
  const listed = spawnSync(`${postgres.bin}/pg_restore`, ['--list', path], { encoding: 'utf8' });
  if (listed.status !== 0)
    throw new Error(
      `${path} is no backup this PostgreSQL can read: ${listed.stderr.trim().split('\n')[0]}\nThe database was left as it is.`,
    );
  const { default: pg } = await import('pg');
  const at = (url, name) => url.replace(/\/[^/]+$/, `/${name}`);
  const ask = async (url, sql) => {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    try {
      return (await client.query(sql)).rows;
    } finally {
      await client.end();
    }
  };
  const jobs = async (name) => {
    const [{ there }] = await ask(
      at(postgres.ownerUrl, name),
      `SELECT to_regclass('job') IS NOT NULL AS there`,
    );
    return there
      ? Number((await ask(at(postgres.ownerUrl, name), 'SELECT count(*) FROM job'))[0].count)
      : 0;
  };
  const [here] = await ask(
    postgres.maintenanceUrl,
    `SELECT 1 FROM pg_database WHERE datname = '${database}'`,
  );
  const now = here ? await jobs(database) : 0;
  if (now > 0 && !replace)
    throw new Error(
      `The database holds ${now} jobs. To put the backup in their place say so:  npm run restore -- ${file} --replace\nNothing was changed.`,
    );
  const fresh = `${database}_restoring`;
  await ask(postgres.maintenanceUrl, `DROP DATABASE IF EXISTS ${fresh} WITH (FORCE)`);
  await ask(postgres.maintenanceUrl, `CREATE DATABASE ${fresh}`);
  try {
    run(`${postgres.bin}/pg_restore`, [
      '--exit-on-error',
      '--single-transaction',
      '--no-owner',
      `--dbname=${at(postgres.ownerUrl, fresh)}`,
      path,
    ]);
  } catch (error) {
    await ask(postgres.maintenanceUrl, `DROP DATABASE IF EXISTS ${fresh} WITH (FORCE)`);
    throw new Error(
      `The backup could not be read to its end; the database was left as it is.\n${error.message}`,
      { cause: error },
    );
  }
  const count = await jobs(fresh);
  const before =
    now > 0
      ? backup(
          postgres,
          join(folder, `before-restore-${stamp()}.dump`),
          at(postgres.ownerUrl, database),
        )
      : undefined;
  if (here) await ask(postgres.maintenanceUrl, `DROP DATABASE ${database} WITH (FORCE)`);
  await ask(postgres.maintenanceUrl, `ALTER DATABASE ${fresh} RENAME TO ${database}`);
  // Files that this key has signed are known as the server's own again.
  if (postgres.secrets && existsSync(keyFile(path))) {
    const secrets = JSON.parse(readFileSync(postgres.secrets, 'utf8'));
    const { signing } = JSON.parse(readFileSync(keyFile(path), 'utf8'));
    if (signing) writeWhole(postgres.secrets, JSON.stringify({ ...secrets, signing }));
  }
  return { count, before };
}
