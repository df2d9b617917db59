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
  unfit,
  verifyEvidence,
  type Author,
  type Envelope,
  type Evidence,
  type Job,
} from '@tactron/core/job';
import { accessOf, audit, demand, type Access } from '../accounts/access.js';
import { BlobRow, DeviceProfileRow, EvidenceOriginRow, JobRow, SiteRow } from '../db/entities.js';
import { originsOf, proved, sealOf, type Proved, type SigningKey } from '../evidence/seal.js';
import { evidenceOf, insertEvidence } from '../evidence/store.js';
import { insertFile } from '../files/store.js';
import { checked, invalid, Problem } from '../http/problem.js';
import { namedFiles, receiveBundle, type Bundle } from './bundle.js';
import { insertJob, sendingOf } from './store.js';

/** A job as a file: document, profile, evidence with its chain, where it came from, and this server's seal over it. */
export async function jobFile(db: DataSource, document: Job, key: SigningKey) {
  const profile = await db
    .getRepository(DeviceProfileRow)
    .findOneBy({ sha256: document.profile.sha256 });
  const site = await db.getRepository(SiteRow).findOneBy({ id: document.siteId });
  const evidence = await evidenceOf(db, document.id);
  const origins = await originsOf(db, document.id);
  return {
    format: 'tactron-job',
    version: JOB_VERSION,
    job: document,
    profiles: profile ? { [profile.sha256]: profile.document } : {},
    evidence,
    ...(origins.length ? { origins } : {}),
    seal: await sealOf(db, key, document, evidence),
    ...(site ? { site: { id: site.id, name: site.name } } : {}),
  };
}

/**
 * The same for a job whose evidence names no files: one carrier is JSON without files, the other a ZIP with them.
 *
 * @throws Problem 409 where there are files: the bundle carries them
 */
export async function wholeJobFile(db: DataSource, document: Job, key: SigningKey) {
  const file = await jobFile(db, document, key);
  if (namedFiles(file.evidence).size > 0)
    throw new Problem(
      409,
      'takeBundle',
      `This job has pictures or files. Take it as a bundle: /api/jobs/${document.id}/bundle`,
    );
  return file;
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

/** Reads a job file or a bundle. A job that is here already comes in as a copy with an id of its own, its evidence with it. */
export function importRoute(db: DataSource, key: SigningKey): Router {
  const router = Router();
  router.post('/', async (req, res) => {
    demand(res, 'electrician');
    if (req.is('application/zip')) {
      const bundle = await receiveBundle(req);
      try {
        res.status(201).json(await take(db, key, req, res, bundle.job, bundle));
      } finally {
        await bundle.close();
      }
      return;
    }
    res.status(201).json(await take(db, key, req, res, req.body));
  });
  return router;
}

async function take(
  db: DataSource,
  key: SigningKey,
  req: Request,
  res: Response,
  data: unknown,
  bundle?: Bundle,
): Promise<unknown> {
  const odd = unfit(data);
  if (odd) throw invalid([odd]);
  const read = readEnvelope(data);
  if (!read.ok && read.why === 'newer')
    throw new Problem(422, 'newerFormat', `${read.issues[0].message}. Nothing was stored.`, {
      path: 'version',
    });
  if (!read.ok) throw invalid(read.issues);
  const { envelope } = read;
  demandWhole(envelope);
  const { job, evidence } = envelope;
  const proof = proved(envelope, key);
  const taken = await db.getRepository(JobRow).existsBy({ id: job.id });
  const id = taken ? uuid() : job.id;
  const by = {
    author: importer(req, res),
    atClient: new Date().toISOString(),
    label: taken ? 'imported from a file, as a copy' : 'imported from a file',
  };
  await db.transaction(async (tx) => {
    await insertCompany(tx, envelope, accessOf(res));
    if (bundle) await insertBundled(tx, evidence as Evidence[], bundle);
    await insertJob(
      tx,
      taken ? { ...job, id, tag: copyTag(job.tag) } : job,
      by,
      sendingOf(req, res),
    );
    await insertEvidence(tx, id, evidence as Evidence[], { imported: true });
    await insertOrigins(tx, id, envelope, by.author, proof);
  });
  await audit(db, res, 'imported', id, job.tag);
  return { id, copied: taken, evidence: evidence.length, ...proof };
}

/** Two jobs of one name on a board are taken for each other. */
const copyTag = (tag: string): string => `${tag.slice(0, 33)} (copy)`;

/** Notes where the evidence of a file comes from; what the file says of its own origins stays told. */
async function insertOrigins(
  tx: EntityManager,
  jobId: string,
  { job, evidence, origins = [] }: Envelope,
  author: Author,
  { proof, server, sealed }: Proved,
): Promise<void> {
  if (evidence.length === 0) return;
  const { ends } = verifyEvidence(evidence as Evidence[]);
  const rows = tx.getRepository(EvidenceOriginRow);
  for (const o of origins)
    await rows.insert({
      id: uuid(),
      jobId,
      fromJob: o.fromJob,
      firstSeq: o.firstSeq,
      count: o.count,
      author: { name: o.by || 'unknown', role: '' },
      at: new Date(o.at),
      server: o.server,
      // What another server saw signed, this one only heard of.
      proof: proof === 'signedHere' ? o.proof : 'unsigned',
      sealed: o.sealed,
      ends: '',
    });
  await rows.insert({
    id: uuid(),
    jobId,
    fromJob: job.id,
    firstSeq: 1,
    count: evidence.length,
    author,
    server,
    proof,
    sealed,
    ends,
  });
}

/** The files of a bundle, one after the other; each must be the one its hash names, and named by the evidence. */
async function insertBundled(
  tx: EntityManager,
  evidence: readonly Evidence[],
  bundle: Bundle,
): Promise<void> {
  const named = namedFiles(evidence);
  for (const sha256 of bundle.files) {
    const type = named.get(sha256);
    if (!type) throw invalid([{ path: `files.${sha256}`, message: 'no evidence names this file' }]);
    await insertFile(tx.getRepository(BlobRow), sha256, type, await bundle.file(sha256));
  }
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
  { administrator, sites: shared }: Access,
): Promise<void> {
  const sites = tx.getRepository(SiteRow);
  if (shared !== 'all' && !shared.has(job.siteId))
    throw new Problem(
      403,
      'site',
      'The site of this file is not shared with your account. Nothing was stored.',
    );
  if (administrator && !(await sites.existsBy({ id: job.siteId })))
    await sites.insert({ id: job.siteId, name: site?.name ?? 'Imported' });
  for (const [sha256, document] of Object.entries(profiles)) {
    const row = { sha256, family: String(document['family']), document: document as never };
    await tx.createQueryBuilder().insert().into(DeviceProfileRow).values(row).orIgnore().execute();
  }
  for (const [sha256, { type, base64 }] of Object.entries(files))
    await insertFile(tx.getRepository(BlobRow), sha256, type, Buffer.from(base64, 'base64'));
}
