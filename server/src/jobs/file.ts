import { Router, type Request, type Response } from 'express';
import * as v from 'valibot';
import { createHash } from 'node:crypto';
import { v4 as uuid } from 'uuid';
import type { DataSource, EntityManager } from 'typeorm';
import { profileSchema } from '@tactron/core/catalogue';
import {
  authorSchema,
  hashOf,
  JOB_VERSION,
  readEnvelope,
  verifyEvidence,
  type Author,
  type Envelope,
  type Evidence,
  type Job,
} from '@tactron/core/job';
import { accessOf, audit, demand } from '../accounts/access.js';
import { BlobRow, DeviceProfileRow, JobRow, SiteRow } from '../db/entities.js';
import { evidenceOf, insertEvidence } from '../evidence/store.js';
import { filesOf, insertFile } from '../files/store.js';
import { checked, invalid, Problem } from '../http/problem.js';
import { insertJob, sendingOf } from './store.js';

/** A job as a file: document, profile, evidence with its chain, and the pictures and files the evidence names. */
export async function jobFile(db: DataSource, document: Job): Promise<unknown> {
  const profile = await db
    .getRepository(DeviceProfileRow)
    .findOneBy({ sha256: document.profile.sha256 });
  const site = await db.getRepository(SiteRow).findOneBy({ id: document.siteId });
  const evidence = await evidenceOf(db, document.id);
  const files = await filesOf(db, evidence);
  return {
    format: 'tactron-job',
    version: JOB_VERSION,
    job: document,
    profiles: profile ? { [profile.sha256]: profile.document } : {},
    evidence,
    ...(Object.keys(files).length ? { files } : {}),
    ...(site ? { site: { id: site.id, name: site.name } } : {}),
  };
}

/** What is wrong inside a file that reads well: false hashes, a broken chain, a file that is not the one its hash names. */
function demandWhole({ job, profiles, evidence, files = {} }: Envelope): void {
  for (const [sha, document] of Object.entries(profiles)) {
    checked(profileSchema, document);
    if (hashOf(document) !== sha)
      throw invalid([
        { path: `profiles.${sha}`, message: 'the profile is not the one its hash names' },
      ]);
  }
  for (const [sha, { base64 }] of Object.entries(files)) {
    if (createHash('sha256').update(Buffer.from(base64, 'base64')).digest('hex') !== sha)
      throw invalid([{ path: `files.${sha}`, message: 'the file is not the one its hash names' }]);
  }
  const stray = evidence.findIndex((e) => e.jobId !== job.id);
  if (stray >= 0)
    throw invalid([
      { path: `evidence.${stray}.jobId`, message: 'this evidence belongs to another job' },
    ]);
  const { broken } = verifyEvidence(evidence);
  if (broken)
    throw invalid([
      {
        path: `evidence.${broken.index}`,
        message: 'the chain of evidence does not hold here: it was changed after it was taken',
      },
    ]);
}

/** Reads a job file. A job that is here already comes in as a copy with an id of its own. */
export function importRoute(db: DataSource): Router {
  const router = Router();
  router.post('/', async (req, res) => {
    demand(res, 'electrician');
    const read = readEnvelope(req.body);
    if (!read.ok && read.why === 'newer')
      throw new Problem(422, 'newerFormat', `${read.issues[0].message}. Nothing was stored.`, {
        path: 'version',
      });
    if (!read.ok) throw invalid(read.issues);
    demandWhole(read.envelope);
    const { job } = read.envelope;
    const taken = await db.getRepository(JobRow).existsBy({ id: job.id });
    const id = taken ? uuid() : job.id;
    const by = {
      author: importer(req, res),
      atClient: new Date().toISOString(),
      label: 'imported from a file',
    };
    await db.transaction(async (tx) => {
      await insertCompany(tx, read.envelope, accessOf(res).administrator);
      await insertJob(tx, { ...job, id }, by, sendingOf(req, res));
      if (!taken)
        await insertEvidence(tx, id, read.envelope.evidence as Evidence[], { imported: true });
    });
    await audit(db, res, 'imported', id, job.tag);
    res.status(201).json({ id, copied: taken });
  });
  return router;
}

/** Who imports: the account, or the name and role this browser keeps. */
function importer(req: Request, res: Response): Author {
  const { accountId, name, trade } = accessOf(res);
  if (accountId) return { name, role: trade };
  try {
    const told = v.safeParse(
      authorSchema,
      JSON.parse(decodeURIComponent(req.get('x-author') ?? '')),
    );
    if (told.success) return told.output;
  } catch {
    // not told, or not in a way that can be read: the file comes in all the same
  }
  return { name: 'unknown', role: '' };
}

/** What comes with a job: its site, its profiles, and the files of its evidence. */
async function insertCompany(
  tx: EntityManager,
  { job, site, profiles, files = {} }: Envelope,
  mayMakeSite: boolean,
): Promise<void> {
  const sites = tx.getRepository(SiteRow);
  if (!(await sites.existsBy({ id: job.siteId }))) {
    if (!mayMakeSite)
      throw new Problem(
        403,
        'site',
        'The site of this file is not here, and your account cannot make it. Nothing was stored.',
      );
    await sites.insert({ id: job.siteId, name: site?.name ?? 'Imported' });
  }
  for (const [sha256, document] of Object.entries(profiles)) {
    const row = { sha256, family: String(document['family']), document: document as never };
    await tx.createQueryBuilder().insert().into(DeviceProfileRow).values(row).orIgnore().execute();
  }
  for (const [sha256, { type, base64 }] of Object.entries(files))
    await insertFile(tx.getRepository(BlobRow), sha256, type, Buffer.from(base64, 'base64'));
}
