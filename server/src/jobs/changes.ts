import { DataSource, type EntityManager } from 'typeorm';
import * as v from 'valibot';
import {
  applyPatch,
  authorSchema,
  changeHash,
  disjoint,
  jsonBytes,
  MAX_JOB_BYTES,
  jobSchema,
  patchSchema,
  PatchError,
  pathIssues,
  type Author,
  type Job,
  type Operation,
} from '@tactron/core/job';
import { JobChangeRow, JobRow, SiteRow } from '../db/entities.js';
import { demandOpen } from '../evidence/signing.js';
import { invalid, Problem } from '../http/problem.js';

export const unknownJob = (): Problem =>
  new Problem(
    404,
    'unknownJob',
    'There is no such job here. It may have been made on another server.',
  );

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
  /** Who is signed in; null where the name told stands. */
  readonly author: Author | null;
  readonly sees: (siteId: string) => boolean;
}

/** What others changed while a change was on its way. */
export type ChangeTold = Pick<JobChangeRow, 'id' | 'revision' | 'patch' | 'author' | 'atClient'>;

/** Changes that are told at once; who is further behind takes the document. */
export const MOST_TOLD = 5000;

/**
 * Saves one change, in this order: a known id gets the original answer; the revision is compared; the patch is applied
 * and the result checked; document, change and chain hash are committed together. A change made on an older revision goes in
 * all the same where it touches nothing that was changed since.
 *
 * @returns the revision the change made, and the changes of others that lie between
 * @throws Problem 404 unknown job, 409 the id of a change of another job or a record that is closed, 412 stale with the changes since, 400 a patch that
 *   does not fit
 */
export async function saveChange(
  db: DataSource,
  jobId: string,
  change: Change,
  sending: Sending,
): Promise<{ revision: number; since?: readonly ChangeTold[] }> {
  return db.transaction(async (tx) => {
    const known = await knownChange(tx, jobId, change);
    const row = await tx.findOne(JobRow, {
      where: { id: jobId },
      lock: { mode: 'pessimistic_write' },
    });
    if (!row || !sending.sees(row.siteId)) throw unknownJob();
    const raced = known ?? (await knownChange(tx, jobId, change));
    if (raced) return raced;
    await demandOpen(tx, jobId);
    const since = await sinceBase(tx, row, change);
    const document = patched(row.document, change, since.length > 0 ? since : undefined, row);
    if (document.id !== jobId)
      throw invalid([{ path: 'id', message: 'the id of a job never changes' }]);
    if (document.siteId !== row.siteId) await demandSiteHere(tx, document.siteId, sending);
    const revision = row.revision + 1;
    await appendChange(tx, { ...change, jobId, revision, kind: 'edit' }, sending);
    await tx
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
      .where('id = :jobId', { jobId })
      .execute();
    await tx.query(`SELECT pg_notify('tactron_job', $1)`, [`${jobId} ${revision}`]);
    return since.length ? { revision, since } : { revision };
  });
}

/** The first answer to a change that is here already, with what lay between its base and itself. */
async function knownChange(
  tx: EntityManager,
  jobId: string,
  { id, base }: Change,
): Promise<{ revision: number; since?: readonly ChangeTold[] } | undefined> {
  const known = await tx.findOne(JobChangeRow, {
    select: { id: true, jobId: true, revision: true },
    where: { id },
  });
  if (!known) return undefined;
  if (known.jobId !== jobId)
    throw new Problem(409, 'changeTaken', 'A change with this id belongs to another job.');
  const { revision } = known;
  if (revision === base + 1) return { revision };
  const since = (await changesAfter(tx, jobId, base)).filter((c) => c.revision < revision);
  return { revision, since };
}

/** Changes since the revision a change was made on. @throws Problem 412 when it cannot simply be laid over them */
async function sinceBase(tx: EntityManager, row: JobRow, change: Change): Promise<ChangeTold[]> {
  if (row.revision === change.base) return [];
  const stale = (more: Readonly<Record<string, unknown>>): Problem =>
    new Problem(412, 'stale', 'The job was changed elsewhere.', {
      revision: row.revision,
      ...more,
    });
  const behind = row.revision - change.base;
  if (behind < 0 || behind > MOST_TOLD) throw stale({ tooFar: true, behind });
  const since = await changesAfter(tx, row.id, change.base);
  // A whole document lies between: there is no way from the one to the other by changes alone.
  if (since.length < behind) throw stale({ tooFar: true, behind });
  if (since.every((theirs) => disjoint(change.patch, theirs.patch))) return since;
  throw stale({ changes: since });
}

/** Changes of a job after a revision, in order; what only kept the document as it was is no change. */
export async function changesAfter(
  tx: Pick<EntityManager, 'createQueryBuilder'>,
  jobId: string,
  revision: number,
): Promise<ChangeTold[]> {
  const rows = await tx
    .createQueryBuilder(JobChangeRow, 'c')
    .where(`c.job_id = :jobId AND c.revision > :revision AND c.kind = 'edit'`, { jobId, revision })
    .orderBy('c.revision')
    .limit(MOST_TOLD)
    .getMany();
  return rows.map(({ id, revision: at, patch, author, atClient }) => ({
    id,
    revision: at,
    patch,
    author,
    atClient,
  }));
}

/** @throws Problem 400 when the site is not there, or not the sender's: told alike, so that none is found by trying */
export async function demandSiteHere(
  tx: EntityManager,
  siteId: string,
  sending: Sending,
): Promise<void> {
  if (!sending.sees(siteId) || !(await tx.existsBy(SiteRow, { id: siteId })))
    throw invalid([{ path: 'siteId', message: 'there is no such site' }]);
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
  sending: Pick<Sending, 'clockAheadS' | 'accountId' | 'author'>,
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
  const told = {
    ...change,
    author: sending.author ?? change.author,
    formula: 2 as const,
    sentBy: sending.accountId,
  };
  await tx.insert(JobChangeRow, {
    id: change.id,
    jobId,
    revision,
    kind: change.kind,
    label: change.label,
    patch: change.patch as never,
    author: told.author,
    atClient,
    clockAheadS: sending.clockAheadS,
    sentBy: sending.accountId,
    formula: told.formula,
    prevHash,
    hash: changeHash(prevHash, { ...told, atClient: atClient.toISOString() }),
  });
}

/** @throws Problem 412 when it no longer fits what others made of the document, 400 when it does not fit at all */
function patched(
  document: Job,
  change: Change,
  since: readonly ChangeTold[] | undefined,
  { revision }: JobRow,
): Job {
  const refuse = (path: string, message: string): Problem =>
    since
      ? new Problem(412, 'stale', 'The job was changed elsewhere.', { revision, changes: since })
      : invalid([{ path, message }]);
  let next: unknown;
  try {
    next = applyPatch(document, change.patch);
  } catch (error) {
    if (error instanceof PatchError) throw refuse(`patch ${error.path}`, error.message);
    throw error;
  }
  const result = v.safeParse(jobSchema, next);
  if (!result.success) {
    const [issue] = pathIssues(result.issues);
    throw since ? refuse(issue.path, issue.message) : invalid(pathIssues(result.issues));
  }
  demandSize(result.output);
  return result.output;
}

/** @throws Problem 413 when a job has grown beyond what is kept */
export function demandSize(job: Job): void {
  if (jsonBytes(job) > MAX_JOB_BYTES)
    throw new Problem(
      413,
      'jobTooLarge',
      `The job would be larger than ${MAX_JOB_BYTES / 1e6} MB. Nothing was stored.`,
    );
}
