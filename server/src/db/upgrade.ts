import { execFile } from 'node:child_process';
import { mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import * as v from 'valibot';
import { jobSchema } from '@tactron/core/job';
import { createDataSource, migrations } from './data-source.js';
import { JobRow } from './entities.js';

const run = promisify(execFile);

/** Where PostgreSQL's programs lie and where dumps go; without them an upgrade of data that is there is refused. */
export interface DumpPlace {
  readonly pgBin: string;
  readonly folder: string;
}

/** What starting found and did. */
export interface Upgraded {
  /** Migrations that ran. */
  readonly ran: readonly string[];
  /** The dump made before them, where there was anything to keep. */
  readonly dump?: string;
  /** Jobs whose document does not fit this release, with the place: kept as they are. */
  readonly unreadable: readonly { readonly id: string; readonly path: string }[];
}

/**
 * Brings the database to this release, as its owner: a dump first where an older release has left data, then the migrations, then
 * every job is opened once.
 *
 * @throws Error with what to do when a newer release has written the database, or when the dump cannot be made
 */
export async function upgrade(ownerUrl: string, place?: DumpPlace): Promise<Upgraded> {
  const owner = createDataSource(ownerUrl, 1);
  await owner.initialize();
  try {
    const known = migrations.map((m) => m.name);
    const applied = await appliedIn(owner);
    const newer = applied.filter((name) => !known.includes(name));
    if (newer.length)
      throw new Error(
        `This database was written by a newer release of Tactron (it has ${newer.join(', ')}).\nStart that release, or restore the backup made before it: npm run restore -- FILE. Nothing was changed.`,
      );
    const pending = known.filter((name) => !applied.includes(name));
    const dump =
      applied.length && pending.length ? await dumpBefore(ownerUrl, pending[0], place) : undefined;
    await owner.runMigrations();
    const unreadable = applied.length && pending.length ? await openEvery(owner) : [];
    return { ran: pending, unreadable, ...(dump ? { dump } : {}) };
  } finally {
    await owner.destroy();
  }
}

async function appliedIn(owner: ReturnType<typeof createDataSource>): Promise<string[]> {
  const [{ there }] = (await owner.query(
    `SELECT to_regclass('migrations') IS NOT NULL AS there`,
  )) as { there: boolean }[];
  return there
    ? ((await owner.query(`SELECT name FROM migrations ORDER BY id`)) as { name: string }[]).map(
        (row) => row.name,
      )
    : [];
}

async function dumpBefore(
  url: string,
  migration: string,
  place: DumpPlace | undefined,
): Promise<string> {
  if (!place)
    throw new Error(
      'This database is of an older release, and a dump is made before it is changed. Start with "npm start", which knows where.',
    );
  await mkdir(place.folder, { recursive: true, mode: 0o700 });
  const file = join(
    place.folder,
    `before-${migration}-${new Date().toISOString().replace(/[:.]/gu, '-')}.dump`,
  );
  const half = `${file}.part`;
  try {
    await run(join(place.pgBin, 'pg_dump'), [
      '--format=custom',
      `--file=${half}`,
      `--dbname=${url}`,
    ]);
    await rename(half, file);
  } catch (error) {
    await rm(half, { force: true });
    throw new Error(
      `The dump before the upgrade could not be made, so nothing was changed: ${(error as Error).message.split('\n').slice(0, 3).join(' ')}`,
      {
        cause: error,
      },
    );
  }
  return file;
}

async function openEvery(
  owner: ReturnType<typeof createDataSource>,
): Promise<{ id: string; path: string }[]> {
  const rows = owner.getRepository(JobRow);
  const ids = await rows.find({ select: { id: true } });
  const unreadable: { id: string; path: string }[] = [];
  for (const { id } of ids) {
    const row = await rows.findOneByOrFail({ id });
    const result = v.safeParse(jobSchema, row.document);
    if (!result.success) unreadable.push({ id, path: v.getDotPath(result.issues[0]) ?? '' });
  }
  return unreadable;
}
