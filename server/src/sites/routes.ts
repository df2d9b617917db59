import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { SiteRow } from '../db/entities.js';
import { checked, Problem } from '../http/problem.js';

const name = v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120));

/** Sites that jobs belong to. */
export function siteRoutes(db: DataSource): Router {
  const router = Router();
  const sites = db.getRepository(SiteRow);
  router.get('/', async (_req, res) => {
    const rows = await sites.find({ order: { name: 'ASC' } });
    res.json(rows.map(({ id, name: called, archived }) => ({ id, name: called, archived })));
  });
  router.post('/', async (req, res) => {
    const site = checked(v.strictObject({ id: v.pipe(v.string(), v.uuid()), name }), req.body);
    await db.createQueryBuilder().insert().into(SiteRow).values(site).orIgnore().execute();
    res.status(201).json(site);
  });
  router.patch('/:id', async (req, res) => {
    const id = checked(v.pipe(v.string(), v.uuid()), req.params.id);
    const done = await sites.update({ id }, checked(v.strictObject({ name: v.optional(name), archived: v.optional(v.boolean()) }), req.body));
    if (!done.affected) throw new Problem(404, 'unknownSite', 'There is no such site here.');
    res.json({ id });
  });
  return router;
}
