import type { DataSource, EntityManager } from 'typeorm';
import { evidenceHash, type Evidence } from '@tactron/core/job';
import { EvidenceRow } from '../db/entities.js';

/** Evidence of a job in the order in which it arrived. */
export async function evidenceOf(db: DataSource, jobId: string): Promise<Evidence[]> {
  const rows = await db
    .getRepository(EvidenceRow)
    .find({ where: { jobId }, order: { seq: 'ASC' } });
  return rows.map(plain);
}

/** A row as it was told; what is not said is not there, so that its hash can be taken again. */
function plain({ seq: _seq, sentBy: _by, ...row }: EvidenceRow): Evidence {
  return Object.fromEntries(
    Object.entries(row).filter(([, value]) => value !== null),
  ) as unknown as Evidence;
}

/** How evidence came: from a file it keeps what the first server noted, otherwise this server notes it. */
export type Arrival =
  | { readonly imported: true }
  | {
      readonly imported?: false;
      readonly clockAheadS: number | null;
      readonly accountId: string | null;
    };

/** Adds evidence at the end of the job's chain; what is there already, by id, is left as it is. */
export async function insertEvidence(
  tx: EntityManager,
  jobId: string,
  list: readonly Evidence[],
  arrival: Arrival,
): Promise<Evidence[]> {
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
    const { atServer, clockAheadS, prevHash: _p, hash: _h, ...told } = item;
    const here = arrival.imported
      ? { atServer, clockAheadS }
      : { atServer: new Date().toISOString(), clockAheadS: arrival.clockAheadS ?? undefined };
    const noted = { ...here, atServer: here.atServer ?? new Date().toISOString() };
    const e = {
      ...told,
      jobId,
      ...Object.fromEntries(Object.entries(noted).filter(([, x]) => x !== undefined)),
    } as Evidence;
    const prevHash = last?.hash ?? '';
    const row = {
      id: e.id,
      jobId,
      seq: (last?.seq ?? 0) + 1,
      jobRevision: e.jobRevision,
      kind: e.kind,
      subject: e.subject,
      body: e.body as never,
      supersedes: e.supersedes ?? null,
      why: e.why ?? null,
      author: e.author,
      atClient: e.atClient,
      atServer: noted.atServer,
      clockAheadS: noted.clockAheadS ?? null,
      sentBy: arrival.imported ? null : arrival.accountId,
      coreVersion: e.coreVersion,
      prevHash,
      hash: evidenceHash(prevHash, e),
    };
    await rows.insert(row);
    last = row as EvidenceRow;
    stored.push(plain(last));
  }
  await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} evidence`]);
  return stored;
}
