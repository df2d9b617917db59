import { Router } from 'express';
import { v4 as uuid } from 'uuid';
import type { DataSource, EntityManager } from 'typeorm';
import * as v from 'valibot';
import { profileSchema } from '@tactron/core/catalogue';
import { hashOf, jobSchema, readEnvelope, type Evidence, type Job } from '@tactron/core/job';
import { DeviceProfileRow, JobChangeRow, JobRow, SiteRow } from '../db/entities.js';
import { evidenceOf, insertEvidence } from '../evidence/store.js';
import { checked, invalid, Problem } from '../http/problem.js';
import { board, boardQuery } from './board.js';
import { changeSchema, saveChange } from './changes.js';

const idOf = (value: unknown): string => checked(v.pipe(v.string(), v.uuid()), value);

async function findJob(db: DataSource, id: string): Promise<JobRow> {
  const row = await db.getRepository(JobRow).findOneBy({ id });
  if (!row) throw new Problem(404, 'unknownJob', 'There is no such job here. It may have been made on another server.');
  return row;
}

async function insertJob(db: Pick<EntityManager, 'getRepository' | 'createQueryBuilder'>, job: Job): Promise<void> {
  if (!(await db.getRepository(SiteRow).existsBy({ id: job.siteId }))) throw invalid([{ path: 'siteId', message: 'there is no such site' }]);
  if (!(await db.getRepository(DeviceProfileRow).existsBy({ sha256: job.profile.sha256 })))
    throw invalid([{ path: 'profile.sha256', message: 'this profile is not here' }]);
  const row = { id: job.id, siteId: job.siteId, tag: job.tag, machine: job.machine, family: job.profile.family, document: job as never, revision: 0 };
  const done = await db.createQueryBuilder().insert().into(JobRow).values(row).orIgnore().returning('id').execute();
  if ((done.raw as unknown[]).length === 0) throw new Problem(409, 'jobExists', 'A job with this id is here already.');
}

/** Jobs: board, making, reading, changing, copying, archiving, files. */
export function jobRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/', async (req, res) => void res.json(await board(db, checked(boardQuery, req.query))));
  router.post('/', async (req, res) => {
    const job = checked(jobSchema, req.body);
    await insertJob(db, job);
    res.status(201).json({ revision: 0 });
  });
  router.get('/:id', async (req, res) => {
    const row = await findJob(db, idOf(req.params.id));
    res.json({ job: row.document, revision: row.revision, archived: row.archived });
  });
  router.post('/:id/changes', async (req, res) => void res.json(await saveChange(db, idOf(req.params.id), checked(changeSchema, req.body))));
  router.get('/:id/changes', async (req, res) => {
    const after = checked(v.optional(v.pipe(v.string(), v.transform(Number), v.number(), v.integer()), '0'), req.query['after']);
    const rows = await db
      .getRepository(JobChangeRow)
      .createQueryBuilder('c')
      .where('c.job_id = :id AND c.revision > :after', { id: idOf(req.params.id), after })
      .orderBy('c.revision')
      .limit(1000)
      .getMany();
    res.json(rows.map(({ id, revision, patch, author, atClient }) => ({ id, revision, patch, author, atClient })));
  });
  router.post('/:id/copy', async (req, res) => {
    const body = checked(v.strictObject({ id: v.pipe(v.string(), v.uuid()), tag: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40)) }), req.body);
    const { document } = await findJob(db, idOf(req.params.id));
    await insertJob(db, { ...document, id: body.id, tag: body.tag });
    res.status(201).json({ id: body.id, revision: 0 });
  });
  router.post('/:id/archive', async (req, res) => {
    const { archived } = checked(v.strictObject({ archived: v.boolean() }), req.body);
    const id = idOf(req.params.id);
    await findJob(db, id);
    await db.getRepository(JobRow).update({ id }, { archived });
    res.json({ archived });
  });
  router.get('/:id/file', async (req, res) => {
    const { document } = await findJob(db, idOf(req.params.id));
    const profile = await db.getRepository(DeviceProfileRow).findOneBy({ sha256: document.profile.sha256 });
    const site = await db.getRepository(SiteRow).findOneBy({ id: document.siteId });
    res.attachment(`${document.tag.replace(/[^\w.-]/gu, '_')}.tactron.json`);
    res.json({
      format: 'tactron-job', version: 1, job: document, profiles: profile ? { [profile.sha256]: profile.document } : {},
      evidence: await evidenceOf(db, document.id), ...(site ? { site: { id: site.id, name: site.name } } : {}),
    }); // prettier-ignore
  });
  return router;
}

/** Reads a job file. A job that is here already comes in as a copy with an id of its own. */
export function importRoute(db: DataSource): Router {
  const router = Router();
  router.post('/', async (req, res) => {
    const read = readEnvelope(req.body);
    if (!read.ok && read.why === 'newer') throw new Problem(422, 'newerFormat', `${read.issues[0].message}. Nothing was stored.`, { path: 'version' });
    if (!read.ok) throw invalid(read.issues);
    const { job, profiles, evidence, site } = read.envelope;
    for (const [sha, document] of Object.entries(profiles)) {
      checked(profileSchema, document);
      if (hashOf(document) !== sha) throw invalid([{ path: `profiles.${sha}`, message: 'the profile is not the one its hash names' }]);
    }
    const taken = await db.getRepository(JobRow).existsBy({ id: job.id });
    const id = taken ? uuid() : job.id;
    await db.transaction(async (tx) => {
      const sites = tx.getRepository(SiteRow);
      if (!(await sites.existsBy({ id: job.siteId }))) await sites.insert({ id: job.siteId, name: site?.name ?? 'Imported' });
      for (const [sha256, document] of Object.entries(profiles)) {
        await tx
          .createQueryBuilder()
          .insert()
          .into(DeviceProfileRow)
          .values({ sha256, family: String(document['family']), document: document as never })
          .orIgnore()
          .execute();
      }
      await insertJob(tx, { ...job, id });
      if (!taken) await insertEvidence(tx, id, evidence as Evidence[], true);
    });
    res.status(201).json({ id, copied: taken });
  });
  return router;
}
