import { Router } from 'express';
import { pipeline } from 'node:stream/promises';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { authorSchema, jobSchema } from '@tactron/core/job';
import { accessOf, audit, demand } from '../accounts/access.js';
import { JobRow } from '../db/entities.js';
import { sealOf, type SigningKey } from '../evidence/seal.js';
import { evidenceOf } from '../evidence/store.js';
import { checked, Problem } from '../http/problem.js';
import { board, boardQuery, count, findingsSchema, noteFindings } from './board.js';
import { changesAfter, changeSchema, MOST_TOLD, saveChange } from './changes.js';
import { bundleOf } from './bundle.js';
import { jobFile, wholeJobFile } from './file.js';
import { historyOf, jobAt } from './history.js';
import { demandJob, findJob, insertJob, sendingOf } from './store.js';

const idOf = (value: unknown): string => checked(v.pipe(v.string(), v.uuid()), value);
const made = {
  author: v.optional(authorSchema, { name: 'unknown', role: '' }),
  atClient: v.optional(v.pipe(v.string(), v.isoTimestamp())),
};

/** Jobs: board, making, reading, changing, copying, archiving, history. */
export function jobRoutes(db: DataSource, key: SigningKey): Router {
  const router = Router();
  router.get(
    '/',
    async (req, res) =>
      void res.json(await board(db, checked(boardQuery, req.query), accessOf(res).sites)),
  );
  router.get('/:id', async (req, res) => {
    const row = await findJob(db, res, idOf(req.params.id));
    await audit(db, res, 'read', row.id, row.tag);
    res.json({ job: row.document, revision: row.revision, archived: row.archived });
  });
  router.post('/:id/changes', async (req, res) => {
    demand(res, 'electrician');
    const change = checked(changeSchema, req.body);
    const answer = await saveChange(db, idOf(req.params.id), change, sendingOf(req, res));
    await audit(db, res, 'changed', idOf(req.params.id), change.label);
    res.json(answer);
  });
  history(router, db);
  making(router, db);
  router.put('/:id/findings', async (req, res) => {
    demand(res, 'electrician');
    const { id } = await findJob(db, res, idOf(req.params.id));
    await noteFindings(db, id, checked(findingsSchema, req.body));
    res.json({});
  });
  router.post('/:id/archive', async (req, res) => {
    demand(res, 'supervisor');
    const { archived } = checked(v.strictObject({ archived: v.boolean() }), req.body);
    const { id } = await findJob(db, res, idOf(req.params.id));
    await db.getRepository(JobRow).update({ id }, { archived });
    await audit(db, res, archived ? 'archived' : 'took out of the archive', id);
    res.json({ archived });
  });
  leaving(router, db, key);
  return router;
}

/** A job going out: as one file, as a bundle with its pictures, streamed; the seal over its evidence. */
function leaving(router: Router, db: DataSource, key: SigningKey): void {
  router.get('/:id/file', async (req, res) => {
    const { document } = await findJob(db, res, idOf(req.params.id));
    await audit(db, res, 'exported', document.id);
    res.attachment(`${document.tag.replace(/[^\w.-]/gu, '_')}.tactron.json`);
    res.json(await wholeJobFile(db, document, key));
  });
  router.get('/:id/bundle', async (req, res) => {
    const { document } = await findJob(db, res, idOf(req.params.id));
    await audit(db, res, 'exported', document.id);
    const bundle = await bundleOf(db, await jobFile(db, document, key));
    res.attachment(`${document.tag.replace(/[^\w.-]/gu, '_')}.tactron.zip`);
    await pipeline(bundle, res.type('application/zip'));
  });
  router.get('/:id/seal', async (req, res) => {
    const { document } = await findJob(db, res, idOf(req.params.id));
    res.json(await sealOf(db, key, document, await evidenceOf(db, document.id)));
  });
}

/** What a job was, and what was changed in it. */
function history(router: Router, db: DataSource): void {
  router.get('/:id/changes', async (req, res) => {
    const id = idOf(req.params.id);
    await demandJob(db, res, id);
    const after = checked(count(0, 1e9), req.query['after']);
    const changes = await changesAfter(db.manager, id, after);
    if (changes.length === MOST_TOLD)
      throw new Problem(
        409,
        'tooFarBehind',
        `More than ${MOST_TOLD} changes lie between: read the job anew.`,
        { tooFar: true },
      );
    res.json(changes);
  });
  router.get('/:id/history', async (req, res) => {
    const id = idOf(req.params.id);
    await demandJob(db, res, id);
    const { before, size } = checked(
      v.object({ before: count(1e9, 1e9), size: count(50, 200) }),
      req.query,
    );
    res.json(await historyOf(db, id, before, size));
  });
  router.get('/:id/at/:revision', async (req, res) => {
    const id = idOf(req.params.id);
    await demandJob(db, res, id);
    res.json(await jobAt(db, id, checked(count(0, 1e9), req.params.revision)));
  });
}

/** A job made anew, and as a copy of another. */
function making(router: Router, db: DataSource): void {
  router.post('/', async (req, res) => {
    demand(res, 'electrician');
    const { job, author, atClient } = checked(
      v.strictObject({ job: jobSchema, ...made }),
      req.body,
    );
    await db.transaction((tx) =>
      insertJob(
        tx,
        job,
        { author, atClient: atClient ?? new Date().toISOString(), label: 'made' },
        sendingOf(req, res),
      ),
    );
    await audit(db, res, 'made', job.id, job.tag);
    res.status(201).json({ revision: 0 });
  });
  router.post('/:id/copy', async (req, res) => {
    demand(res, 'electrician');
    const body = checked(
      v.strictObject({
        id: v.pipe(v.string(), v.uuid()),
        tag: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40)),
        ...made,
      }),
      req.body,
    );
    const { document } = await findJob(db, res, idOf(req.params.id));
    const by = {
      author: body.author,
      atClient: body.atClient ?? new Date().toISOString(),
      label: `copied from ${document.tag}`,
    };
    await db.transaction((tx) =>
      insertJob(tx, { ...document, id: body.id, tag: body.tag }, by, sendingOf(req, res)),
    );
    await audit(db, res, 'copied', body.id, body.tag);
    res.status(201).json({ id: body.id, revision: 0 });
  });
}
