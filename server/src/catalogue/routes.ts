import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { planningGaps, profileSchema, shippedProfiles } from '@tactron/core/catalogue';
import { hashOf } from '@tactron/core/job';
import * as v from 'valibot';
import { DeviceProfileRow } from '../db/entities.js';
import { Problem } from '../http/problem.js';

/** Puts the shipped profiles into the store; what is there stays as it is. */
export async function seedProfiles(db: DataSource): Promise<void> {
  for (const [family, document] of Object.entries(shippedProfiles)) {
    const profile = v.parse(profileSchema, document);
    await db
      .createQueryBuilder()
      .insert()
      .into(DeviceProfileRow)
      .values({ sha256: hashOf(profile), family, document: profile as never })
      .orIgnore()
      .execute();
  }
}

const shipped = new Set(
  Object.values(shippedProfiles).map((document) => hashOf(v.parse(profileSchema, document))),
);

/** A profile that came with a file stands under a name of its own: its family may be one that is shipped, its content another. */
const titleOf = (sha256: string, title: string): string =>
  shipped.has(sha256) ? title : `${title} (from a file, ${sha256.slice(0, 8)})`;

/** Device profiles by hash; the list says which are complete enough to be planned on. */
export function catalogueRoutes(db: DataSource): Router {
  const router = Router();
  const profiles = db.getRepository(DeviceProfileRow);
  router.get('/', async (_req, res) => {
    const rows = await profiles.find({ order: { family: 'ASC', createdAt: 'DESC' } });
    res.json(
      rows.map(({ sha256, family, document }) => {
        const profile = v.parse(profileSchema, document);
        return {
          sha256,
          family,
          title: titleOf(sha256, profile.title),
          description: profile.description ?? '',
          kind: profile.kind,
          models: profile.models,
          supply: profile.supply,
          gaps: planningGaps(profile),
        };
      }),
    );
  });
  router.get('/:sha', async (req, res) => {
    const row = await profiles.findOneBy({ sha256: req.params.sha });
    if (!row)
      throw new Problem(
        404,
        'unknownProfile',
        'This profile is not here. Import the job file that carries it.',
      );
    res.set('cache-control', 'private, max-age=31536000, immutable').json(row.document);
  });
  return router;
}
