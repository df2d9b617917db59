import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { evidenceSchema, isOfLaterRelease } from '@tactron/core/job';
import { accessOf, audit, demand } from '../accounts/access.js';
import { BlobRow } from '../db/entities.js';
import { clockAhead } from '../http/clock.js';
import { checked, invalid } from '../http/problem.js';
import { laterRelease } from '../http/same-release.js';
import { demandJob } from '../jobs/store.js';
import { evidenceOf, insertEvidence } from './store.js';

/** Evidence of a job: read and added to, never changed. */
export function evidenceRoutes(db: DataSource): Router {
  const router = Router({ mergeParams: true });
  const idOf = (params: object): string =>
    checked(v.pipe(v.string(), v.uuid()), (params as { id?: string }).id);
  router.get('/', async (req, res) => {
    await demandJob(db, res, idOf(req.params));
    res.json(await evidenceOf(db, idOf(req.params)));
  });
  router.post('/', async (req, res) => {
    demand(res, 'electrician');
    const id = idOf(req.params);
    if (Array.isArray(req.body) && req.body.some(isOfLaterRelease)) throw laterRelease();
    const list = checked(
      v.pipe(v.array(evidenceSchema), v.minLength(1), v.maxLength(500)),
      req.body,
    );
    const stray = list.findIndex((e) => e.jobId !== id);
    if (stray >= 0)
      throw invalid([{ path: `${stray}.jobId`, message: 'this evidence belongs to another job' }]);
    await demandJob(db, res, id);
    for (const [i, e] of list.entries()) {
      if (
        e.kind === 'attachment' &&
        !(await db.getRepository(BlobRow).existsBy({ sha256: e.body.sha256 }))
      )
        throw invalid([
          { path: `${i}.body.sha256`, message: 'this file has not arrived yet: send it first' },
        ]);
    }
    const arrival = { clockAheadS: clockAhead(req), accountId: accessOf(res).accountId };
    const stored = await db.transaction((tx) => insertEvidence(tx, id, list, arrival));
    await audit(db, res, 'added evidence', id, list.map((e) => e.kind).join(', '));
    res.status(201).json(stored);
  });
  return router;
}
