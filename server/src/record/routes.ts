import { Router } from 'express';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { profileSchema } from '@tactron/core/catalogue';
import { audit } from '../accounts/access.js';
import { DeviceProfileRow, SiteRow } from '../db/entities.js';
import { evidenceOf } from '../evidence/store.js';
import { checked, Problem } from '../http/problem.js';
import { findJob } from '../jobs/store.js';
import type { PrintOrder } from './print.worker.js';
import { threads } from './threads.js';

const querySchema = v.object({ decimal: v.optional(v.picklist(['.', ',']), '.') });

/**
 * The record of a job as a file, made on the server: `record.pdf`, and `record.html` with the same words.
 *
 * @param worker what prints, in a thread of its own
 */
export function recordRoutes(
  db: DataSource,
  worker = new URL('./print.worker.js', import.meta.url),
): Router {
  const router = Router({ mergeParams: true });
  const print = threads<PrintOrder, Uint8Array>(worker);
  for (const [as, type] of [
    ['pdf', 'application/pdf'],
    ['html', 'text/html; charset=utf-8'],
  ] as const)
    router.get(`/record.${as}`, async (req, res) => {
      const { decimal } = checked(querySchema, req.query);
      const id = checked(v.pipe(v.string(), v.uuid()), (req.params as { id?: string }).id);
      const { document: job, revision } = await findJob(db, res, id);
      const [profile, site, evidence] = await Promise.all([
        db.getRepository(DeviceProfileRow).findOneBy({ sha256: job.profile.sha256 }),
        db.getRepository(SiteRow).findOneBy({ id: job.siteId }),
        evidenceOf(db, job.id),
      ]);
      if (!profile)
        throw new Problem(
          409,
          'unknownProfile',
          'The profile of this job is not here. Import the job file that carries it.',
        );
      await audit(db, res, 'exported', job.id);
      const roles = site?.document?.requiredRoles ?? [];
      const body = await print({
        as,
        job,
        profile: v.parse(profileSchema, profile.document),
        evidence,
        site: site?.name ?? '',
        roles: roles.length > 0 ? roles : undefined,
        revision,
        base: `${req.protocol}://${req.get('host') ?? ''}/`,
        at: new Date().toISOString(),
        decimal,
      });
      res.attachment(`${job.tag.replace(/[^\w.-]/gu, '_')}-record-r${revision}.${as}`);
      res.type(type).send(Buffer.from(body));
    });
  return router;
}
