import type { DataSource } from 'typeorm';
import { replayPatches, upgradeJob, type Job } from '@tactron/core/job';
import { JobChangeRow } from '../db/entities.js';
import { Problem } from '../http/problem.js';

/** One line of a job's history: who, what, when by either clock. */
export interface HistoryLine {
  readonly revision: number;
  readonly kind: string;
  readonly label: string;
  readonly author: { readonly name: string; readonly role: string };
  readonly atClient: Date;
  readonly atServer: Date;
  readonly clockAheadS: number | null;
  /** Name of the account that sent it, where it was sent under one. */
  readonly sentBy: string | null;
  /** Places it touched, as JSON Pointers; the first few of many. */
  readonly places: readonly string[];
}

/** History of a job, the newest first, a page at a time. */
export async function historyOf(
  db: DataSource,
  jobId: string,
  before: number,
  size: number,
): Promise<HistoryLine[]> {
  return db
    .getRepository(JobChangeRow)
    .createQueryBuilder('c')
    .select(['c.revision AS revision', 'c.kind AS kind', 'c.label AS label', 'c.author AS author'])
    .addSelect('c.at_client', 'atClient')
    .addSelect('c.at_server', 'atServer')
    .addSelect('c.clock_ahead_s', 'clockAheadS')
    .addSelect('(SELECT a.name FROM account a WHERE a.id = c.sent_by)', 'sentBy')
    .addSelect(
      `ARRAY(SELECT o->>'path' FROM jsonb_array_elements(c.patch) o WHERE o->>'op' <> 'test' LIMIT 4)`,
      'places',
    )
    .where('c.job_id = :jobId AND c.revision < :before', { jobId, before })
    .orderBy('c.revision', 'DESC')
    .limit(size)
    .getRawMany<HistoryLine>();
}

/**
 * The job as it was at a revision, from the nearest whole document before it, in the format of this release.
 *
 * @throws Problem 404 when the history does not reach back that far
 */
export async function jobAt(db: DataSource, jobId: string, revision: number): Promise<Job> {
  const rows = db.getRepository(JobChangeRow);
  const begin = await rows
    .createQueryBuilder('c')
    .where(`c.job_id = :jobId AND c.kind = 'checkpoint' AND c.revision <= :revision`, {
      jobId,
      revision,
    })
    .orderBy('c.revision', 'DESC')
    .limit(1)
    .getOne();
  const since = begin
    ? await rows
        .createQueryBuilder('c')
        .where('c.job_id = :jobId AND c.revision > :from AND c.revision <= :revision', {
          jobId,
          from: begin.revision,
          revision,
        })
        .orderBy('c.revision')
        .getMany()
    : [];
  const reached = since.at(-1)?.revision ?? begin?.revision;
  if (!begin || reached !== revision)
    throw new Problem(404, 'noSuchMoment', 'The history kept here does not reach this moment.');
  const then = replayPatches({} as Job, [begin.patch, ...since.map((c) => c.patch)]);
  return upgradeJob(then) as Job;
}
