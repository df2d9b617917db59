import { parentPort, workerData } from 'node:worker_threads';
import type { Profile } from '@tactron/core/catalogue';
import type { Evidence, Job } from '@tactron/core/job';
import { printOf, recordPage } from '@tactron/core/printed';
import { recordInputOf, saidDrawings } from '@tactron/core/said';
import type { DecimalMark } from '@tactron/core/units';
import { layouter } from './layouter.js';
import { recordPdf } from './pdf.js';

/** Everything a record is printed from; plain data, for it goes to a thread of its own. */
export interface PrintOrder {
  readonly as: 'pdf' | 'html';
  readonly job: Job;
  readonly profile: Profile;
  readonly evidence: readonly Evidence[];
  readonly site: string;
  readonly roles: readonly string[] | undefined;
  readonly revision: number;
  readonly base: string;
  readonly at: string;
  readonly decimal: DecimalMark;
}

/** Reckons a job anew and prints its record. */
async function print(order: PrintOrder): Promise<Uint8Array> {
  const { as, job, profile, evidence, site, roles, revision, base, at, decimal } = order;
  const input = recordInputOf(job, profile, evidence, {
    site,
    decimal,
    ...(roles ? { roles } : {}),
  });
  if (as === 'html') return new TextEncoder().encode(recordPage(input, revision));
  const drawings = await saidDrawings(job, profile, layouter);
  return recordPdf(printOf(input, { revision, at, base, drawings }));
}

parentPort?.postMessage(await print(workerData as PrintOrder));
