import { DataSource } from 'typeorm';
import * as v from 'valibot';
import { applyPatch, authorSchema, hashOf, jobSchema, patchSchema, PatchError, pathIssues, type Job } from '@tactron/core/job';
import { JobChangeRow, JobRow } from '../db/entities.js';
import { invalid, Problem } from '../http/problem.js';

export const changeSchema = v.strictObject({
  id: v.pipe(v.string(), v.uuid()),
  base: v.pipe(v.number(), v.integer(), v.minValue(0)),
  patch: patchSchema,
  author: authorSchema,
  atClient: v.pipe(v.string(), v.isoTimestamp()),
});
export type Change = v.InferOutput<typeof changeSchema>;

/** Hash that chains a change to the one before it. */
export function changeHash(prevHash: string, change: Change, jobId: string, revision: number): string {
  return hashOf([prevHash, change.id, jobId, revision, change.patch, change.author, change.atClient]);
}

/**
 * Saves one change, in this order: a known id gets the original answer; the revision is compared; the patch is applied
 * and the result checked; document, change and chain hash are committed together.
 *
 * @returns the revision the change made
 * @throws Problem 404 unknown job, 412 stale with the document now and the changes since, 400 a patch that does not fit
 */
export async function saveChange(db: DataSource, jobId: string, change: Change): Promise<{ revision: number }> {
  return db.transaction(async (tx) => {
    const known = await tx.findOneBy(JobChangeRow, { id: change.id });
    if (known) return { revision: known.revision };
    const row = await tx.findOne(JobRow, { where: { id: jobId }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw new Problem(404, 'unknownJob', 'There is no such job here.');
    if (row.revision !== change.base) {
      const raced = await tx.findOneBy(JobChangeRow, { id: change.id });
      if (raced) return { revision: raced.revision };
      const since = await tx
        .createQueryBuilder(JobChangeRow, 'c')
        .where('c.job_id = :jobId AND c.revision > :base', { jobId, base: change.base })
        .orderBy('c.revision')
        .getMany();
      throw new Problem(412, 'stale', 'The job was changed elsewhere.', {
        job: row.document,
        revision: row.revision,
        changes: since.map(({ id, revision, patch, author, atClient }) => ({ id, revision, patch, author, atClient })),
      });
    }
    const document = patched(row.document, change);
    if (document.id !== jobId) throw invalid([{ path: 'id', message: 'the id of a job never changes' }]);
    const revision = row.revision + 1;
    const last = row.revision === 0 ? null : await tx.findOne(JobChangeRow, { select: { id: true, hash: true }, where: { jobId, revision: row.revision } });
    const prevHash = last?.hash ?? '';
    await tx.insert(JobChangeRow, {
      id: change.id,
      jobId,
      revision,
      kind: 'edit',
      patch: change.patch as never,
      author: change.author,
      atClient: new Date(change.atClient),
      prevHash,
      hash: changeHash(prevHash, change, jobId, revision),
    });
    const done = await tx.createQueryBuilder().update(JobRow)
      .set({ document: document as never, revision, tag: document.tag, machine: document.machine, family: document.profile.family, siteId: document.siteId, updatedAt: () => 'now()' })
      .where('id = :jobId AND revision = :base', { jobId, base: change.base }).execute(); // prettier-ignore
    if (done.affected !== 1) throw new Problem(409, 'raced', 'The job was changed at the same moment. Try again.');
    await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} ${revision}`]);
    return { revision };
  });
}

function patched(document: Job, change: Change): Job {
  let next: unknown;
  try {
    next = applyPatch(document, change.patch);
  } catch (error) {
    if (error instanceof PatchError) throw invalid([{ path: `patch ${error.path}`, message: error.message }]);
    throw error;
  }
  const result = v.safeParse(jobSchema, next);
  if (!result.success) throw invalid(pathIssues(result.issues));
  return result.output;
}
