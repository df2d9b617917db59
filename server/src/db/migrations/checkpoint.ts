import type { QueryRunner } from 'typeorm';
import { changeHash, type Operation } from '@tactron/core/job';

const upgrade = { name: 'Tactron', role: 'upgrade' };

/** Adds a whole document at the end of a job's history, chained like any change, and moves the job to its revision. */
export async function appendCheckpoint(
  db: QueryRunner,
  job: { readonly id: string; readonly document: unknown; readonly revision: number },
  label: string,
): Promise<void> {
  const [last] = (await db.query(
    `SELECT hash FROM job_change WHERE job_id = $1 ORDER BY revision DESC LIMIT 1`,
    [job.id],
  )) as { hash: string }[];
  const revision = job.revision + 1;
  const patch: Operation[] = [{ op: 'replace', path: '', value: job.document }];
  const atClient = new Date().toISOString();
  const [change] = (await db.query(`SELECT gen_random_uuid() AS id`)) as { id: string }[];
  const prevHash = last?.hash ?? '';
  const told = { id: change.id, jobId: job.id, revision, patch, author: upgrade, atClient };
  await db.query(
    `INSERT INTO job_change (id, job_id, revision, kind, label, patch, author, at_client, prev_hash, hash) VALUES ($1, $2, $3, 'checkpoint', $4, $5, $6, $7, $8, $9)`,
    [
      change.id,
      job.id,
      revision,
      label,
      JSON.stringify(patch),
      JSON.stringify(upgrade),
      atClient,
      prevHash,
      changeHash(prevHash, told),
    ],
  );
  await db.query(`UPDATE job SET document = $2, revision = $3 WHERE id = $1`, [
    job.id,
    JSON.stringify(job.document),
    revision,
  ]);
}
