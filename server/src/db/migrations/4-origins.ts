import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Where things come from: evidence by its job, so that a copy carries its own; who brought a file, and what it could prove; which
 * account has sent a picture; who sent a change, in its hash. Invitations can be taken back.
 */
export class Origins1793000000000 implements MigrationInterface {
  name = 'Origins1793000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(
      `ALTER TABLE evidence DROP CONSTRAINT evidence_pkey, ADD PRIMARY KEY (job_id, id)`,
    );
    await db.query(`ALTER TABLE job_change ADD COLUMN formula integer`);
    await db.query(`CREATE TABLE evidence_origin (
      id uuid PRIMARY KEY, job_id uuid NOT NULL, from_job uuid NOT NULL, first_seq integer NOT NULL, count integer NOT NULL,
      author jsonb NOT NULL, at timestamptz NOT NULL DEFAULT now(), server text, proof text NOT NULL, sealed integer NOT NULL, ends text NOT NULL)`);
    await db.query(`CREATE INDEX evidence_origin_job ON evidence_origin (job_id)`);
    await db.query(
      `CREATE TABLE blob_sender (sha256 text NOT NULL, account_id uuid NOT NULL, PRIMARY KEY (sha256, account_id))`,
    );
    await db.query(`ALTER TABLE invitation ADD COLUMN revoked_at timestamptz`);
    await db.query(
      `CREATE INDEX evidence_file ON evidence ((body->>'sha256')) WHERE kind = 'attachment'`,
    );
    await db.query(`DO $$ BEGIN IF EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'tactron_app') THEN
      GRANT SELECT, INSERT ON evidence_origin, blob_sender TO tactron_app;
      GRANT DELETE ON invitation TO tactron_app;
    END IF; END $$`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`DROP INDEX evidence_file`);
    await db.query(`ALTER TABLE invitation DROP COLUMN revoked_at`);
    await db.query(`DROP TABLE evidence_origin, blob_sender`);
    await db.query(`ALTER TABLE job_change DROP COLUMN formula`);
    await db.query(`ALTER TABLE evidence DROP CONSTRAINT evidence_pkey, ADD PRIMARY KEY (id)`);
  }
}
