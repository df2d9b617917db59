import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { accessOf, audit, demand, demandSite, sees } from '../accounts/access.js';
import { AccountSiteRow, JobRow, SiteRow } from '../db/entities.js';
import { checked, Problem } from '../http/problem.js';

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
    demandSite(res, id);
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
    if (!done.affected) throw new Problem(404, 'unknownSite', 'There is no such site here.');
    res.json({ id });
  });
  return router;
}
