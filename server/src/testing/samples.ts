import { randomUUID } from 'node:crypto';
import { shippedProfile } from '@tactron/core/catalogue';
import { emptyJob, hashOf, type Evidence, type Job, type Operation } from '@tactron/core/job';
import type { Change } from '../jobs/changes.js';
import type { Bed } from './testbed.js';

export const sampleProfile = shippedProfile('marrowick-f');
export const author = { name: 'T. Ester', role: 'electrician' };

export const newJob = (siteId: string, tag = 'S-1'): Job =>
  emptyJob({
    id: randomUUID(),
    siteId,
    tag,
    machine: 'sieve',
    practice: 'IEC',
    profile: {
      family: sampleProfile.family,
      model: 'F02',
      version: '1',
      sha256: hashOf(sampleProfile),
    },
  });

export const change = (base: number, patch: Operation[], id: string = randomUUID()): Change => ({
  id,
  base,
  patch,
  label: '',
  author,
  atClient: '2026-01-01T08:00:00.000Z',
});

export const replace = (path: string, value: unknown): Operation[] => [
  { op: 'replace', path, value },
];

export const reading = (jobId: string, more: Partial<Evidence> = {}): Evidence =>
  ({
    id: randomUUID(),
    jobId,
    jobRevision: 0,
    kind: 'keyed',
    subject: '212',
    body: { code: '212', value: 5 },
    author,
    atClient: '2026-01-01T08:00:00.000Z',
    coreVersion: '0.1.0',
    ...more,
  }) as Evidence;

/** A site of its own, made on the bed. */
export async function madeSite(bed: Bed, name = 'Test hall'): Promise<string> {
  const id = randomUUID();
  const { status } = await bed.ask('POST', 'sites', { id, name });
  expect(status).toBe(201);
  return id;
}

export async function madeJob(bed: Bed, siteId: string, tag?: string): Promise<Job> {
  const job = newJob(siteId, tag);
  expect((await bed.ask('POST', 'jobs', { job, author })).status).toBe(201);
  return job;
}
