import type { MigrationInterface, QueryRunner } from 'typeorm';

/** First tables. What is evidence or history can be read and added to by the application's role, never changed. */
export class Initial1790000000000 implements MigrationInterface {
  name = 'Initial1790000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(
      `CREATE TABLE site (id uuid PRIMARY KEY, name text NOT NULL, archived boolean NOT NULL DEFAULT false, created_at timestamptz NOT NULL DEFAULT now())`,
    );
    await db.query(`CREATE TABLE job (
      id uuid PRIMARY KEY, site_id uuid NOT NULL, tag text NOT NULL, machine text NOT NULL, family text NOT NULL, document jsonb NOT NULL,
      revision integer NOT NULL DEFAULT 0, archived boolean NOT NULL DEFAULT false, updated_at timestamptz NOT NULL DEFAULT now())`);
    await db.query(`CREATE INDEX job_board ON job (archived, tag)`);
    await db.query(`CREATE INDEX job_site ON job (site_id)`);
    await db.query(`CREATE TABLE job_change (
      id uuid PRIMARY KEY, job_id uuid NOT NULL, revision integer NOT NULL, kind text NOT NULL DEFAULT 'edit', patch jsonb NOT NULL, author jsonb NOT NULL,
      at_client timestamptz NOT NULL, at_server timestamptz NOT NULL DEFAULT now(), prev_hash text NOT NULL, hash text NOT NULL)`);
    await db.query(`CREATE UNIQUE INDEX job_change_order ON job_change (job_id, revision)`);
    await db.query(`CREATE TABLE evidence (
      id uuid PRIMARY KEY, job_id uuid NOT NULL, seq integer NOT NULL, job_revision integer NOT NULL, kind text NOT NULL, subject text NOT NULL, body jsonb NOT NULL,
      supersedes uuid, why text, author jsonb NOT NULL, at_client text NOT NULL, at_server text NOT NULL, core_version text NOT NULL, prev_hash text NOT NULL, hash text NOT NULL)`);
    await db.query(`CREATE UNIQUE INDEX evidence_order ON evidence (job_id, seq)`);
    await db.query(
      `CREATE TABLE device_profile (sha256 text PRIMARY KEY, family text NOT NULL, document jsonb NOT NULL, created_at timestamptz NOT NULL DEFAULT now())`,
    );
    await db.query(`DO $$ BEGIN IF EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'tactron_app') THEN
      GRANT SELECT, INSERT, UPDATE ON site, job TO tactron_app;
      GRANT SELECT, INSERT ON job_change, evidence, device_profile TO tactron_app;
    END IF; END $$`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`DROP TABLE device_profile, evidence, job_change, job, site`);
  }
}
