import { DataSource, type EntityManager } from 'typeorm';
import * as v from 'valibot';
import {
  applyPatch,
  authorSchema,
  changeHash,
  jobSchema,
  patchSchema,
  PatchError,
  pathIssues,
  type Author,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { JobChangeRow, JobRow, SiteRow } from '../db/entities.js';
import { invalid, Problem } from '../http/problem.js';

export const changeSchema = v.strictObject({
  id: v.pipe(v.string(), v.uuid()),
  base: v.pipe(v.number(), v.integer(), v.minValue(0)),
  patch: patchSchema,
  /** What was done, in the words of the person's own undo list. */
  label: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  author: authorSchema,
  atClient: v.pipe(v.string(), v.isoTimestamp()),
});
export type Change = v.InferOutput<typeof changeSchema>;

/** What the server knows of the sender besides the change itself. */
export interface Sending {
  /** Seconds by which the sender's clock was ahead. */
  readonly clockAheadS: number | null;
  readonly accountId: string | null;
  /** @throws Problem when the sender may not work at this site */
  demandSite(siteId: string): void;
}

/**
 * Saves one change, in this order: a known id gets the original answer; the revision is compared; the patch is applied
 * and the result checked; document, change and chain hash are committed together.
 *
 * @returns the revision the change made
 * @throws Problem 404 unknown job, 412 stale with the document now and the changes since, 400 a patch that does not fit
 */
export async function saveChange(
  db: DataSource,
  jobId: string,
  change: Change,
  sending: Sending,
): Promise<{ revision: number }> {
  return db.transaction(async (tx) => {
    const known = await tx.findOneBy(JobChangeRow, { id: change.id, jobId });
    if (known) return { revision: known.revision };
    const row = await tx.findOne(JobRow, {
      where: { id: jobId },
      lock: { mode: 'pessimistic_write' },
    });
    if (!row) throw new Problem(404, 'unknownJob', 'There is no such job here.');
    sending.demandSite(row.siteId);
    if (row.revision !== change.base) {
      const raced = await tx.findOneBy(JobChangeRow, { id: change.id, jobId });
      if (raced) return { revision: raced.revision };
      throw new Problem(412, 'stale', 'The job was changed elsewhere.', {
        job: row.document,
        revision: row.revision,
        changes: await changesAfter(tx, jobId, change.base),
      });
    }
    const document = patched(row.document, change);
    if (document.id !== jobId)
      throw invalid([{ path: 'id', message: 'the id of a job never changes' }]);
    if (document.siteId !== row.siteId) await demandMove(tx, document.siteId, sending);
    const revision = row.revision + 1;
    await appendChange(tx, { ...change, jobId, revision, kind: 'edit' }, sending);
    const done = await tx
      .createQueryBuilder()
      .update(JobRow)
      .set({
        document: document as never,
        revision,
        tag: document.tag,
        machine: document.machine,
        family: document.profile.family,
        siteId: document.siteId,
        updatedAt: () => 'now()',
      })
      .where('id = :jobId AND revision = :base', { jobId, base: change.base })
      .execute();
    if (done.affected !== 1)
      throw new Problem(409, 'raced', 'The job was changed at the same moment. Try again.');
    await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} ${revision}`]);
    return { revision };
  });
}

/** Changes of a job after a revision, in order; what only kept the document as it was is no change. */
export async function changesAfter(
  tx: Pick<EntityManager, 'createQueryBuilder'>,
  jobId: string,
  revision: number,
) {
  const rows = await tx
    .createQueryBuilder(JobChangeRow, 'c')
    .where(`c.job_id = :jobId AND c.revision > :revision AND c.kind = 'edit'`, { jobId, revision })
    .orderBy('c.revision')
    .limit(5000)
    .getMany();
  return rows.map(({ id, revision: at, patch, author, atClient }) => ({
    id,
    revision: at,
    patch,
    author,
    atClient,
  }));
}

async function demandMove(tx: EntityManager, siteId: string, sending: Sending): Promise<void> {
  if (!(await tx.existsBy(SiteRow, { id: siteId })))
    throw invalid([{ path: 'siteId', message: 'there is no such site' }]);
  sending.demandSite(siteId);
}

interface Appended {
  readonly id: string;
  readonly jobId: string;
  readonly revision: number;
  readonly kind: 'edit' | 'checkpoint';
  readonly patch: readonly Operation[];
  readonly label: string;
  readonly author: Author;
  readonly atClient: string;
}

/** Adds a change at the end of the job's chain. */
export async function appendChange(
  tx: EntityManager,
  change: Appended,
  sending: Pick<Sending, 'clockAheadS' | 'accountId'>,
): Promise<void> {
  const { jobId, revision } = change;
  const last =
    revision === 0
      ? null
      : await tx.findOne(JobChangeRow, {
          select: { id: true, hash: true },
          where: { jobId, revision: revision - 1 },
        });
  const prevHash = last?.hash ?? '';
  const atClient = new Date(change.atClient);
  await tx.insert(JobChangeRow, {
    id: change.id,
    jobId,
    revision,
    kind: change.kind,
    label: change.label,
    patch: change.patch as never,
    author: change.author,
    atClient,
    clockAheadS: sending.clockAheadS,
    sentBy: sending.accountId,
    prevHash,
    hash: changeHash(prevHash, { ...change, atClient: atClient.toISOString() }),
  });
}

function patched(document: Job, change: Change): Job {
  let next: unknown;
  try {
    next = applyPatch(document, change.patch);
  } catch (error) {
    if (error instanceof PatchError)
      throw invalid([{ path: `patch ${error.path}`, message: error.message }]);
    throw error;
  }
  const result = v.safeParse(jobSchema, next);
  if (!result.success) throw invalid(pathIssues(result.issues));
  return result.output;
}
