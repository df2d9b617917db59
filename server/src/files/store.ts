import type { DataSource, Repository } from 'typeorm';
import type { Access } from '../accounts/access.js';
import { BlobRow, BlobSenderRow } from '../db/entities.js';

/** Stores a picture or file once; the same bytes again change nothing. */
export async function insertFile(
  rows: Repository<BlobRow>,
  sha256: string,
  type: string,
  body: Buffer,
): Promise<void> {
  await rows
    .createQueryBuilder()
    .insert()
    .values({ sha256, type, bytes: body.length, body })
    .orIgnore()
    .execute();
}

/** Whether a file may be named in evidence: without accounts when it is here; with them, by who has sent it or may read it. */
export async function mayName(
  db: DataSource,
  sha256: string,
  { accountId, sites }: Pick<Access, 'accountId' | 'sites'>,
): Promise<boolean> {
  if (!(await db.getRepository(BlobRow).existsBy({ sha256 }))) return false;
  if (!accountId) return true;
  return (
    (await db.getRepository(BlobSenderRow).existsBy({ sha256, accountId })) ||
    (await mayRead(db, sha256, sites))
  );
}

/** A file is read through a job that names it: with accounts, one of a site that is shared. */
export async function mayRead(
  db: DataSource,
  sha256: string,
  sites: ReadonlySet<string> | 'all',
): Promise<boolean> {
  if (sites === 'all') return true;
  const found: unknown[] = await db.query(
    `SELECT 1 FROM evidence e JOIN job j ON j.id = e.job_id WHERE e.kind = 'attachment' AND e.body->>'sha256' = $1 AND j.site_id = ANY($2::uuid[]) LIMIT 1`,
    [sha256, [...sites]],
  );
  return found.length > 0;
}
