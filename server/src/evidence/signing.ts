import { In, type EntityManager } from 'typeorm';
import { signingOf, type Evidence } from '@tactron/core/job';
import { EvidenceRow } from '../db/entities.js';
import { Problem } from '../http/problem.js';

/**
 * A record that every role has signed is closed: its job is changed again under another issue.
 *
 * @throws Problem 409 closed, with the number of the issue
 */
export async function demandOpen(tx: EntityManager, jobId: string): Promise<void> {
  const rows = await tx.getRepository(EvidenceRow).find({
    where: { jobId, kind: In(['issue', 'signature']) },
    order: { seq: 'ASC' },
  });
  if (rows.length === 0) return;
  const { closed, number } = signingOf(rows as unknown as Evidence[]);
  if (closed)
    throw new Problem(
      409,
      'closed',
      `The record is signed and closed as issue ${number}. Open issue ${number + 1} under Hand over to change the job. Nothing was stored.`,
      { issue: number },
    );
}
