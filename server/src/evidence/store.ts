import type { DataSource, EntityManager } from 'typeorm';
import { hashOf, type Evidence } from '@tactron/core/job';
import { EvidenceRow } from '../db/entities.js';

/** Evidence of a job in the order in which it arrived. */
export async function evidenceOf(db: DataSource, jobId: string): Promise<Evidence[]> {
  const rows = await db.getRepository(EvidenceRow).find({ where: { jobId }, order: { seq: 'ASC' } });
  return rows.map(plain);
}

function plain({ seq: _seq, supersedes, why, ...row }: EvidenceRow): Evidence {
  return { ...row, ...(supersedes ? { supersedes } : {}), ...(why ? { why } : {}) } as Evidence;
}

/** Hash that chains a piece of evidence to the one before it. */
export function evidenceHash(prevHash: string, e: Evidence): string {
  const { prevHash: _p, hash: _h, atServer: _s, ...told } = e;
  return hashOf([prevHash, told]);
}

/**
 * Adds evidence at the end of the job's chain; what is there already, by id, is left as it is.
 *
 * @param keepTimes an imported file keeps the times at which its evidence reached the first server
 */
export async function insertEvidence(tx: EntityManager, jobId: string, list: readonly Evidence[], keepTimes = false): Promise<Evidence[]> {
  await tx.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 1))', [jobId]);
  const rows = tx.getRepository(EvidenceRow);
  let last = await rows.findOne({ where: { jobId }, order: { seq: 'DESC' } });
  const stored: Evidence[] = [];
  for (const item of list) {
    const known = await rows.findOneBy({ id: item.id });
    if (known) {
      stored.push(plain(known));
      continue;
    }
    const e = { ...item, jobId } as Evidence;
    const prevHash = last?.hash ?? '';
    const row = {
      id: e.id, jobId, seq: (last?.seq ?? 0) + 1, jobRevision: e.jobRevision, kind: e.kind, subject: e.subject, body: e.body as never, supersedes: e.supersedes ?? null, why: e.why ?? null,
      author: e.author, atClient: e.atClient, atServer: (keepTimes && e.atServer) || new Date().toISOString(), coreVersion: e.coreVersion, prevHash, hash: evidenceHash(prevHash, e),
    }; // prettier-ignore
    await rows.insert(row);
    last = row as EvidenceRow;
    stored.push(plain(last));
  }
  await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} evidence`]);
  return stored;
}
