import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What a job is found by beside its tag and machine: family and model, its parts, wires, landings, settings and tasks, a line
 * each. The table follows the documents by itself; what is found of a job comes from who has it open, with the revision it is of.
 */
export class Words1794000000000 implements MigrationInterface {
  name = 'Words1794000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`CREATE FUNCTION job_landing(document jsonb, at text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
      SELECT coalesce(document->'adopted'->'devices'->split_part(at, ':', 1)->>'tag', split_part(at, ':', 1)) || ':' || split_part(at, ':', 2)
    $$`);
    await db.query(`CREATE FUNCTION job_words(document jsonb) RETURNS text LANGUAGE sql IMMUTABLE AS $$
      SELECT string_agg(line, E'\\n') FROM (
        SELECT concat_ws(' ', document->'profile'->>'family', document->'profile'->>'model', document->>'practice') AS line
        UNION ALL
        SELECT (value->>'tag') || ' ' || lower(regexp_replace(value->>'kind', '([A-Z])', ' \\1', 'g'))
          FROM jsonb_each(coalesce(document->'adopted'->'devices', '{}'))
        UNION ALL
        SELECT 'wire ' || (value->>'number') || ' ' || job_landing(document, value->>'from') || ' ' || job_landing(document, value->>'to')
          FROM jsonb_each(coalesce(document->'adopted'->'wires', '{}'))
        UNION ALL
        SELECT 'setting ' || key || ' = ' || (value->>'value') FROM jsonb_each(coalesce(document->'adopted'->'settings', '{}'))
        UNION ALL
        SELECT job_landing(document, value->>'at') || ' ' || lower(regexp_replace(value->>'task', '([A-Z])', ' \\1', 'g'))
          FROM jsonb_each(coalesce(document->'adopted'->'assignments', '{}'))
      ) AS lines
    $$`);
    await db.query(
      `CREATE TABLE job_found_by (job_id uuid PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE, words text NOT NULL,
        findings text NOT NULL DEFAULT '', findings_at integer)`,
    );
    await db.query(`CREATE FUNCTION keep_job_words() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
      BEGIN
        INSERT INTO job_found_by (job_id, words) VALUES (NEW.id, coalesce(job_words(NEW.document), ''))
          ON CONFLICT (job_id) DO UPDATE SET words = excluded.words WHERE job_found_by.words <> excluded.words;
        RETURN NULL;
      END
    $$`);
    await db.query(
      `CREATE TRIGGER job_words_follow AFTER INSERT OR UPDATE OF document ON job FOR EACH ROW EXECUTE FUNCTION keep_job_words()`,
    );
    await db.query(
      `INSERT INTO job_found_by (job_id, words) SELECT id, coalesce(job_words(document), '') FROM job`,
    );
    await db.query(`DO $$ BEGIN IF EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'tactron_app') THEN
      GRANT SELECT, UPDATE (findings, findings_at) ON job_found_by TO tactron_app;
    END IF; END $$`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`DROP TRIGGER job_words_follow ON job`);
    await db.query(`DROP FUNCTION keep_job_words()`);
    await db.query(`DROP TABLE job_found_by`);
    await db.query(`DROP FUNCTION job_words(jsonb)`);
    await db.query(`DROP FUNCTION job_landing(jsonb, text)`);
  }
}
