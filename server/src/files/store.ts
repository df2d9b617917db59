import type { DataSource, Repository } from 'typeorm';
import type { Evidence } from '@tactron/core/job';
import { BlobRow } from '../db/entities.js';

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

/** The files that evidence names, as they stand in a job file. */
export async function filesOf(
  db: DataSource,
  evidence: readonly Evidence[],
): Promise<Record<string, { type: string; base64: string }>> {
  const named = [
    ...new Set(evidence.flatMap((e) => (e.kind === 'attachment' ? [e.body.sha256] : []))),
  ];
  const files: Record<string, { type: string; base64: string }> = {};
  for (const sha256 of named) {
    const row = await db.getRepository(BlobRow).findOneBy({ sha256 });
    if (row) files[sha256] = { type: row.type, base64: row.body.toString('base64') };
  }
  return files;
}
