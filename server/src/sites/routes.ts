import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { authorSchema, emptySite, siteSchema, type SiteDocument } from '@tactron/core/job';
import { accessOf, audit, demand, sees, signedIn } from '../accounts/access.js';
import { AccountSiteRow, JobRow, SiteChangeRow, SiteRow } from '../db/entities.js';
import { checked, invalid, Problem } from '../http/problem.js';

const name = v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120));

/** Sites that jobs belong to. */
export function siteRoutes(db: DataSource): Router {
  const router = Router();
  const sites = db.getRepository(SiteRow);
  router.get('/', async (_req, res) => {
    const rows = await sites.find({ order: { name: 'ASC' } });
    res.json(
      rows
        .filter((s) => sees(res, s.id))
        .map(({ id, name: called, archived }) => ({ id, name: called, archived })),
    );
  });
  router.post('/', async (req, res) => {
    demand(res, 'supervisor');
    const site = checked(v.strictObject({ id: v.pipe(v.string(), v.uuid()), name }), req.body);
    const { accountId, administrator } = accessOf(res);
    await db.transaction(async (tx) => {
      const made = await tx
        .createQueryBuilder()
        .insert()
        .into(SiteRow)
        .values(site)
        .orIgnore()
        .returning('id')
        .execute();
      if (accountId && !administrator && (made.raw as unknown[]).length)
        await tx.getRepository(AccountSiteRow).insert({ accountId, siteId: site.id });
    });
    await audit(db, res, 'made the site', null, site.name);
    res.status(201).json(site);
  });
  router.patch('/:id', async (req, res) => {
    demand(res, 'supervisor');
    const id = checked(v.pipe(v.string(), v.uuid()), req.params.id);
    if (!sees(res, id)) throw unknownSite();
    const body = checked(
      v.strictObject({ name: v.optional(name), archived: v.optional(v.boolean()) }),
      req.body,
    );
    if (body.archived) {
      const left = await db.getRepository(JobRow).countBy({ siteId: id, archived: false });
      if (left > 0)
        throw new Problem(
          409,
          'siteInUse',
          `This site still has ${left} ${left === 1 ? 'job' : 'jobs'} on the board. Archive them first. Nothing was changed.`,
        );
    }
    const done = await sites.update({ id }, body);
    if (!done.affected) throw unknownSite();
    res.json({ id });
  });
  siteDocuments(router, db);
  return router;
}

const unknownSite = (): Problem => new Problem(404, 'unknownSite', 'There is no such site here.');

/** What a site settles for its jobs, with a revision: tolerances, tables, roles that sign, instruments. */
function siteDocuments(router: Router, db: DataSource): void {
  const idOf = (value: unknown): string => checked(v.pipe(v.string(), v.uuid()), value);
  router.get('/:id/document', async (req, res) => {
    const id = idOf(req.params.id);
    const row = await db.getRepository(SiteRow).findOneBy({ id });
    if (!row || !sees(res, id)) throw unknownSite();
    res.json({ document: row.document ?? emptySite(), revision: row.revision });
  });
  router.put('/:id/document', async (req, res) => {
    demand(res, 'supervisor');
    const id = idOf(req.params.id);
    if (!sees(res, id)) throw unknownSite();
    const change = checked(
      v.strictObject({
        base: v.pipe(v.number(), v.integer(), v.minValue(0)),
        document: siteSchema,
        author: authorSchema,
        atClient: v.pipe(v.string(), v.isoTimestamp()),
      }),
      req.body,
    );
    const access = accessOf(res);
    const revision = await db.transaction(async (tx) => {
      const row = await tx.findOne(SiteRow, {
        where: { id },
        lock: { mode: 'pessimistic_write' },
      });
      if (!row) throw unknownSite();
      if (row.revision !== change.base)
        throw new Problem(412, 'stale', 'The site was changed elsewhere. Nothing was stored.', {
          document: row.document ?? emptySite(),
          revision: row.revision,
        });
      demandInstruments(row.document, change.document);
      const next = row.revision + 1;
      const { document, atClient } = change;
      const author = signedIn(access) ?? change.author;
      await tx.update(SiteRow, { id }, { document: document as never, revision: next });
      await tx.insert(SiteChangeRow, {
        siteId: id,
        revision: next,
        document: document as never,
        author,
        atClient: new Date(atClient),
        sentBy: access.accountId,
      });
      return next;
    });
    await audit(db, res, 'changed what the site settles', null, id);
    res.json({ revision });
  });
}

/** Readings name instruments: one that was there stays, out of use at most. */
function demandInstruments(before: SiteDocument | null, after: SiteDocument): void {
  const gone = Object.keys(before?.instruments ?? {}).find((key) => !after.instruments[key]);
  if (gone !== undefined)
    throw invalid([
      {
        path: `document.instruments.${gone}`,
        message: 'an instrument is never taken out: put it out of use',
      },
    ]);
}
