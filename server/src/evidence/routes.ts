import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { evidenceSchema, isOfLaterRelease, jsonBytes, MAX_EVIDENCE_BYTES } from '@tactron/core/job';
import { accessOf, audit, demand, signedIn } from '../accounts/access.js';
import { mayName } from '../files/store.js';
import { clockAhead } from '../http/clock.js';
import { checked, invalid } from '../http/problem.js';
import { laterRelease } from '../http/same-release.js';
import { count } from '../jobs/board.js';
import { demandJob } from '../jobs/store.js';
import { originsOf } from './seal.js';
import { evidenceAfter, evidenceOf, insertEvidence } from './store.js';

/** Evidence of a job: read and added to, never changed. */
export function evidenceRoutes(db: DataSource): Router {
  const router = Router({ mergeParams: true });
  const idOf = (params: object): string =>
    checked(v.pipe(v.string(), v.uuid()), (params as { id?: string }).id);
  router.get('/', async (req, res) => {
    const id = idOf(req.params);
    await demandJob(db, res, id);
    const { after, hash } = checked(
      v.object({
        after: v.optional(count(0, 1e9)),
        hash: v.optional(v.pipe(v.string(), v.maxLength(64)), ''),
      }),
      req.query,
    );
    res.json(
      after === undefined ? await evidenceOf(db, id) : await evidenceAfter(db, id, after, hash),
    );
  });
  router.get('/origins', async (req, res) => {
    const id = idOf(req.params);
    await demandJob(db, res, id);
    res.json(await originsOf(db, id));
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
    const access = accessOf(res);
    for (const [i, e] of list.entries()) {
      if (jsonBytes(e) > MAX_EVIDENCE_BYTES)
        throw invalid([{ path: `${i}`, message: 'this piece of evidence is too large' }]);
      if (e.kind === 'attachment' && !(await mayName(db, e.body.sha256, access)))
        throw invalid([
          { path: `${i}.body.sha256`, message: 'this file has not arrived yet: send it first' },
        ]);
    }
    const arrival = {
      clockAheadS: clockAhead(req),
      accountId: access.accountId,
      author: signedIn(access),
    };
    const stored = await db.transaction((tx) => insertEvidence(tx, id, list, arrival));
    await audit(db, res, 'added evidence', id, list.map((e) => e.kind).join(', '));
    res.status(201).json(stored);
  });
  return router;
}
