import type { Request, Response } from 'express';
import { v4 as uuid } from 'uuid';
import type { DataSource, EntityManager } from 'typeorm';
import type { Author, Job } from '@tactron/core/job';
import { accessOf, sees, signedIn } from '../accounts/access.js';
import { DeviceProfileRow, JobRow } from '../db/entities.js';
import { clockAhead } from '../http/clock.js';
import { invalid, Problem } from '../http/problem.js';
import { appendChange, demandSiteHere, demandSize, unknownJob, type Sending } from './changes.js';

/** A job that the account may see. @throws Problem 404 */
export async function findJob(db: DataSource, res: Response, id: string): Promise<JobRow> {
  const row = await db.getRepository(JobRow).findOneBy({ id });
  if (!row || !sees(res, row.siteId)) throw unknownJob();
  return row;
}

/** As `findJob`, where the document is not needed. */
export async function demandJob(db: DataSource, res: Response, id: string): Promise<void> {
  const row = await db
    .getRepository(JobRow)
    .findOne({ where: { id }, select: { id: true, siteId: true } });
  if (!row || !sees(res, row.siteId)) throw unknownJob();
}

/** What a request tells of its sender. */
export function sendingOf(req: Request, res: Response): Sending {
  const access = accessOf(res);
  return {
    clockAheadS: clockAhead(req),
    accountId: access.accountId,
    author: signedIn(access),
    sees: (siteId) => sees(res, siteId),
  };
}

/** Puts a job in, with the whole document at the beginning of its history. */
export async function insertJob(
  tx: EntityManager,
  job: Job,
  by: { author: Author; atClient: string; label: string },
  sending: Sending,
): Promise<void> {
  demandSize(job);
  await demandSiteHere(tx, job.siteId, sending);
  if (!(await tx.getRepository(DeviceProfileRow).existsBy({ sha256: job.profile.sha256 })))
    throw invalid([{ path: 'profile.sha256', message: 'this profile is not here' }]);
  const row = {
    id: job.id,
    siteId: job.siteId,
    tag: job.tag,
    machine: job.machine,
    family: job.profile.family,
    document: job as never,
    revision: 0,
  };
  const done = await tx
    .createQueryBuilder()
    .insert()
    .into(JobRow)
    .values(row)
    .orIgnore()
    .returning('id')
    .execute();
  if ((done.raw as unknown[]).length === 0)
    throw new Problem(409, 'jobExists', 'A job with this id is here already.');
  await appendChange(
    tx,
    {
      id: uuid(),
      jobId: job.id,
      revision: 0,
      kind: 'checkpoint',
      patch: [{ op: 'replace', path: '', value: job }],
      ...by,
    },
    sending,
  );
}
