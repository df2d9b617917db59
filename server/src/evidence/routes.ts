import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { evidenceSchema } from '@tactron/core/job';
import { JobRow } from '../db/entities.js';
import { checked, invalid, Problem } from '../http/problem.js';
import { evidenceOf, insertEvidence } from './store.js';

/** Evidence of a job: read and added to, never changed. */
export function evidenceRoutes(db: DataSource): Router {
  const router = Router({ mergeParams: true });
  const idOf = (params: object): string => checked(v.pipe(v.string(), v.uuid()), (params as { id?: string }).id);
  router.get('/', async (req, res) => void res.json(await evidenceOf(db, idOf(req.params))));
  router.post('/', async (req, res) => {
    const id = idOf(req.params);
    const list = checked(v.pipe(v.array(evidenceSchema), v.minLength(1), v.maxLength(500)), req.body);
    const stray = list.findIndex((e) => e.jobId !== id);
    if (stray >= 0) throw invalid([{ path: `${stray}.jobId`, message: 'this evidence belongs to another job' }]);
    if (!(await db.getRepository(JobRow).existsBy({ id }))) throw new Problem(404, 'unknownJob', 'There is no such job here.');
    res.status(201).json(await db.transaction((tx) => insertEvidence(tx, id, list)));
  });
  return router;
}
