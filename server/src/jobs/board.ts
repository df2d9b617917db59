import { DataSource } from 'typeorm';
import * as v from 'valibot';
import { signingOf, type Evidence, type Job } from '@tactron/core/job';
import { JobRow } from '../db/entities.js';

/** A whole number in a query, from 0 to `max`. */
export const count = (fallback: number, max: number) =>
  v.optional(
    v.pipe(
      v.string(),
      v.transform(Number),
      v.number(),
      v.integer(),
      v.minValue(0),
      v.maxValue(max),
    ),
    String(fallback),
  );

export const boardQuery = v.object({
  search: v.optional(v.pipe(v.string(), v.maxLength(100)), ''),
  site: v.optional(v.union([v.literal(''), v.pipe(v.string(), v.uuid())]), ''),
  family: v.optional(v.pipe(v.string(), v.maxLength(60)), ''),
  archived: v.optional(v.picklist(['no', 'yes']), 'no'),
  page: count(0, 100_000),
  size: count(24, 100),
});

/** One row of the board: what the job is called, and the document its trail is made from. */
export interface BoardRow {
  readonly id: string;
  readonly siteId: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly job: Pick<Job, 'tag' | 'machine' | 'profile' | 'plate' | 'scheme' | 'practice'> & {
    readonly adopted: boolean;
  };
  readonly evidence: number;
  /** Issue of the record that every role has signed; null while it is worked on. */
  readonly closed: number | null;
  /** What of the job the search was found in, a line each; a few of them. */
  readonly found: readonly string[];
}

/** What is found of a job, as far as it is of the revision that stands. */
const FINDINGS = `CASE WHEN f.findings_at = j.revision THEN f.findings ELSE '' END`;

/** What is found of a job as it is at a revision: one sentence a line, told by who has it open. */
export const findingsSchema = v.strictObject({
  revision: v.pipe(v.number(), v.integer(), v.minValue(0)),
  findings: v.pipe(
    v.array(v.pipe(v.string(), v.maxLength(400), v.regex(/^[^\n]*$/u))),
    v.maxLength(200),
  ),
});

/** Notes what a job is found by; nothing where the job has gone on since. */
export async function noteFindings(
  db: DataSource,
  id: string,
  { revision, findings }: v.InferOutput<typeof findingsSchema>,
): Promise<void> {
  await db.query(
    `UPDATE job_found_by SET findings = $2, findings_at = $3
      WHERE job_id = $1 AND EXISTS (SELECT 1 FROM job WHERE id = $1 AND revision = $3)`,
    [id, findings.join('\n'), revision],
  );
}

/** Lines of a job that a search was found in, at most. */
const MOST_FOUND = 3;

/** Pattern of what contains a text. */
const likeOf = (text: string): string => `%${text.replace(/[\\%_]/gu, '\\$&')}%`;

/** Jobs by search and filters, a page at a time; of the sites that are shared with who asks. */
export async function board(
  db: DataSource,
  query: v.InferOutput<typeof boardQuery>,
  sites: ReadonlySet<string> | 'all',
): Promise<{ total: number; rows: BoardRow[] }> {
  const jobs = db
    .getRepository(JobRow)
    .createQueryBuilder('j')
    .where('j.archived = :archived', { archived: query.archived === 'yes' });
  if (query.search)
    jobs.andWhere(
      `(j.tag ILIKE :like OR j.machine ILIKE :like OR EXISTS (SELECT 1 FROM job_found_by f WHERE f.job_id = j.id AND (f.words ILIKE :like OR ${FINDINGS} ILIKE :like))
        OR j.site_id IN (SELECT s.id FROM site s WHERE s.name ILIKE :like))`,
      { like: likeOf(query.search) },
    );
  if (query.site) jobs.andWhere('j.site_id = :site', { site: query.site });
  if (sites !== 'all') jobs.andWhere('j.site_id = ANY(:sites)', { sites: [...sites] });
  if (query.family) jobs.andWhere('j.family = :family', { family: query.family });
  // The mapper's own count would be over distinct ids, which sorts them all.
  const counted = jobs.clone().select('count(*)::int', 'total').getRawOne<{ total: number }>();
  const listed = jobs
    .select('j.id', 'id')
    .orderBy('j.tag')
    .addOrderBy('j.id')
    .offset(query.page * query.size)
    .limit(query.size)
    .getRawMany<{ id: string }>();
  const [count, page] = await Promise.all([counted, listed]);
  const total = count?.total ?? 0;
  const raw =
    page.length === 0
      ? []
      : await rowsOf(
          db,
          page.map(({ id }) => id),
          query.search,
        );
  const rows = raw.map(({ id, siteId, revision, updatedAt, evidence, signing, found, ...job }) => ({
    id,
    siteId,
    revision,
    updatedAt: (updatedAt as Date).toISOString(),
    evidence,
    closed: closedIssue(signing),
    found,
    job,
  }));
  return { total, rows: rows as unknown as BoardRow[] };
}

/** Issue that every role has signed, from what was signed of a job. */
function closedIssue(signing: readonly Evidence[] | null): number | null {
  const { closed, number } = signingOf(signing ?? []);
  return closed ? number : null;
}

/** The page's rows alone are unpacked: documents are large, and a sort over all of them would read every one. */
function rowsOf(
  db: DataSource,
  ids: readonly string[],
  search: string,
): Promise<Record<string, never>[]> {
  return (
    db
      .getRepository(JobRow)
      .createQueryBuilder('j')
      .select([
        'j.id AS id',
        'j.site_id AS "siteId"',
        'j.revision AS revision',
        'j.updated_at AS "updatedAt"',
        'j.tag AS tag',
        'j.machine AS machine',
      ])
      .addSelect(`j.document->'profile'`, 'profile')
      .addSelect(`j.document->'plate'`, 'plate')
      .addSelect(`j.document->'scheme'`, 'scheme')
      .addSelect(`j.document->>'practice'`, 'practice')
      .addSelect(`jsonb_exists(j.document, 'adopted')`, 'adopted')
      .addSelect('(SELECT count(*)::int FROM evidence e WHERE e.job_id = j.id)', 'evidence')
      // What an issue covers is a long list of ids, and no matter here.
      .addSelect(
        `(SELECT jsonb_agg(jsonb_build_object('id', e.id, 'kind', e.kind, 'atClient', e.at_client, 'body', e.body - 'covers'))
        FROM evidence e WHERE e.job_id = j.id AND e.kind IN ('issue', 'signature'))`,
        'signing',
      )
      .addSelect(
        search
          ? `ARRAY(SELECT line FROM job_found_by f, regexp_split_to_table(concat_ws(E'\\n', ${FINDINGS}, f.words), E'\\n') line WHERE f.job_id = j.id AND line ILIKE :like LIMIT ${MOST_FOUND})`
          : `'{}'::text[]`,
        'found',
      )
      .setParameter('like', likeOf(search))
      .where('j.id = ANY(:ids)', { ids })
      .orderBy('j.tag')
      .addOrderBy('j.id')
      .getRawMany()
  );
}
