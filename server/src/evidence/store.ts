import { MoreThan, type DataSource, type EntityManager } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import { evidenceHash, hashOf, type Author, type Evidence } from '@tactron/core/job';
import { EvidenceRow } from '../db/entities.js';
import { Problem } from '../http/problem.js';

/** Evidence of a job in the order in which it arrived; behind so many pieces. */
export async function evidenceOf(db: DataSource, jobId: string, after = 0): Promise<Evidence[]> {
  const rows = await db
    .getRepository(EvidenceRow)
    .find({ where: { jobId, seq: MoreThan(after) }, order: { seq: 'ASC' } });
  return rows.map(plain);
}

/**
 * What a window has not got yet of a job's evidence.
 *
 * @param after pieces it has, from the first on
 * @param hash of the last of them
 * @returns the rest, and how many come before; all of it from the first when what the window has is not how this chain begins
 */
export async function evidenceAfter(
  db: DataSource,
  jobId: string,
  after: number,
  hash: string,
): Promise<{ after: number; evidence: Evidence[] }> {
  const known =
    after > 0 && (await db.getRepository(EvidenceRow).existsBy({ jobId, seq: after, hash }));
  const from = known ? after : 0;
  return { after: from, evidence: await evidenceOf(db, jobId, from) };
}

/** A row as it was told; what is not said is not there, so that its hash can be taken again. */
function plain({ seq: _seq, sentBy, ...row }: EvidenceRow): Evidence {
  // The first formula did not take the sender into the hash, and did not tell it.
  const told = row.formula === 2 ? { ...row, sentBy } : row;
  return Object.fromEntries(
    Object.entries(told).filter(([, value]) => value !== null),
  ) as unknown as Evidence;
}

/** How evidence came: from a file it keeps what the first server noted, otherwise this server notes it. */
export type Arrival =
  | { readonly imported: true }
  | {
      readonly imported?: false;
      readonly clockAheadS: number | null;
      readonly accountId: string | null;
      /** Who is signed in; null where the name told stands. */
      readonly author: Author | null;
    };

/** A piece with what the server that first took it notes of its arrival. */
function noted(item: Evidence, jobId: string, arrival: Arrival): Evidence & { atServer: string } {
  const { atServer, clockAheadS, sentBy, formula, prevHash: _p, hash: _h, ...told } = item;
  const now = new Date().toISOString();
  const here = arrival.imported
    ? { atServer: atServer ?? now, clockAheadS, formula, sentBy }
    : {
        atServer: now,
        clockAheadS: arrival.clockAheadS ?? undefined,
        formula: 2,
        sentBy: arrival.accountId ?? undefined,
      };
  const known = Object.entries(here).filter(([, x]) => x !== undefined);
  const author = arrival.imported ? told.author : (arrival.author ?? told.author);
  return { ...told, author, jobId, ...Object.fromEntries(known) } as Evidence & {
    atServer: string;
  };
}

function rowOf(e: Evidence & { atServer: string }, last: EvidenceRow | null): EvidenceRow {
  const prevHash = last?.hash ?? '';
  return {
    id: e.id,
    jobId: e.jobId,
    seq: (last?.seq ?? 0) + 1,
    jobRevision: e.jobRevision,
    kind: e.kind,
    subject: e.subject,
    body: e.body,
    supersedes: e.supersedes ?? null,
    why: e.why ?? null,
    author: e.author,
    atClient: e.atClient,
    atServer: e.atServer,
    clockAheadS: e.clockAheadS ?? null,
    formula: e.formula ?? null,
    sentBy: e.sentBy ?? null,
    coreVersion: e.coreVersion,
    prevHash,
    hash: evidenceHash(prevHash, e),
  };
}

/** What a person said with it: the same in every sending. */
const said = ({ kind, subject, body, supersedes, why, atClient }: Evidence): string =>
  hashOf({ kind, subject, body, supersedes: supersedes ?? null, why: why ?? null, atClient });

/**
 * Adds evidence at the end of the job's chain; what is there already, by id, is left as it is.
 *
 * @throws Problem 409 when another piece stands under the same id
 */
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
    const known = await rows.findOneBy({ jobId, id: item.id });
    if (known) {
      const there = plain(known);
      if (said(there) !== said(item))
        throw new Problem(
          409,
          'evidenceTaken',
          `Another piece of evidence stands under the id ${item.id}. Nothing was stored.`,
        );
      stored.push(there);
      continue;
    }
    const row = rowOf(noted(item, jobId, arrival), last);
    await rows.insert(row as QueryDeepPartialEntity<EvidenceRow>);
    last = row;
    stored.push(plain(last));
  }
  await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} evidence`]);
  return stored;
}
