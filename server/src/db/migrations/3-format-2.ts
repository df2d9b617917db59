import type { MigrationInterface, QueryRunner } from 'typeorm';
import { upgradeJob } from '@tactron/core/job';
import { appendCheckpoint } from './checkpoint.js';

/**
 * Second format of the job document, a checkpoint a job. Evidence may stand for several pieces at once and says how its
 * hash is taken. A site has a document with a revision of its own.
 */
export class Format21792000000000 implements MigrationInterface {
  name = 'Format21792000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`ALTER TABLE evidence ADD COLUMN formula integer`);
    await db.query(
      `ALTER TABLE evidence ALTER COLUMN supersedes TYPE jsonb USING to_jsonb(supersedes)`,
    );
    await db.query(
      `ALTER TABLE site ADD COLUMN document jsonb, ADD COLUMN revision integer NOT NULL DEFAULT 0`,
    );
    await db.query(`CREATE TABLE site_change (
      site_id uuid NOT NULL, revision integer NOT NULL, document jsonb NOT NULL, author jsonb NOT NULL,
      at_client timestamptz NOT NULL, at_server timestamptz NOT NULL DEFAULT now(), sent_by uuid, PRIMARY KEY (site_id, revision))`);
    await db.query(`DO $$ BEGIN IF EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'tactron_app') THEN
      GRANT SELECT, INSERT ON site_change TO tactron_app;
    END IF; END $$`);
    const ids = (await db.query(`SELECT id FROM job`)) as { id: string }[];
    for (const { id } of ids) {
      const [job] = (await db.query(`SELECT id, document, revision FROM job WHERE id = $1`, [
        id,
      ])) as { id: string; document: { version?: number }; revision: number }[];
      const document = upgradeJob(job.document) as { version?: number };
      if (document.version === job.document.version) continue;
      await appendCheckpoint(db, { ...job, document }, 'brought to format 2');
    }
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`DROP TABLE site_change`);
    await db.query(`ALTER TABLE site DROP COLUMN document, DROP COLUMN revision`);
    await db.query(
      `ALTER TABLE evidence ALTER COLUMN supersedes TYPE uuid USING (supersedes #>> '{}')::uuid`,
    );
    await db.query(`ALTER TABLE evidence DROP COLUMN formula`);
  }
}
