import express, { Router } from 'express';
import { createHash } from 'node:crypto';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { attachmentTypes, MAX_ATTACHMENT_BYTES } from '@tactron/core/job';
import { accessOf, demand } from '../accounts/access.js';
import { BlobRow, BlobSenderRow } from '../db/entities.js';
import { checked, Problem } from '../http/problem.js';
import { insertFile, mayRead } from './store.js';

const shaSchema = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal'));

/** Pictures and files by their SHA-256: put once, read as often as wanted, never run by a browser. */
export function fileRoutes(db: DataSource): Router {
  const router = Router();
  const rows = db.getRepository(BlobRow);
  router.put(
    '/:sha',
    express.raw({ type: () => true, limit: MAX_ATTACHMENT_BYTES }),
    async (req, res) => {
      demand(res, 'electrician');
      const sha256 = checked(shaSchema, req.params.sha);
      const type = checked(
        v.picklist(attachmentTypes, 'a picture, PDF, text or CSV'),
        (req.get('content-type') ?? '').split(';')[0].trim(),
      );
      const body = req.body as unknown;
      if (!Buffer.isBuffer(body) || body.length === 0)
        throw new Problem(400, 'empty', 'The file is empty. Nothing was stored.');
      if (createHash('sha256').update(body).digest('hex') !== sha256)
        throw new Problem(
          400,
          'otherFile',
          'The file is not the one its hash names: it was damaged on the way. It is sent again.',
        );
      await insertFile(rows, sha256, type, body);
      const { accountId } = accessOf(res);
      if (accountId)
        await db
          .createQueryBuilder()
          .insert()
          .into(BlobSenderRow)
          .values({ sha256, accountId })
          .orIgnore()
          .execute();
      res.status(201).json({ sha256, bytes: body.length });
    },
  );
  router.get('/:sha', async (req, res) => {
    const sha256 = checked(shaSchema, req.params.sha);
    const row = (await mayRead(db, sha256, accessOf(res).sites))
      ? await rows.findOneBy({ sha256 })
      : null;
    if (!row)
      throw new Problem(
        404,
        'unknownFile',
        'This file is not here. It may still wait on the device that took it.',
      );
    res.set({
      'content-type': row.type,
      'content-security-policy': "default-src 'none'; sandbox",
      'content-disposition': row.type.startsWith('image/') ? 'inline' : 'attachment',
      'cache-control': 'private, max-age=31536000, immutable',
    });
    res.send(row.body);
  });
  return router;
}
