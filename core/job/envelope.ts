import * as v from 'valibot';
import { attachmentTypes, evidenceSchema } from './evidence.js';
import { JOB_VERSION, jobSchema } from './job.js';
import { originSchema, sealSchema } from './seal.js';
import { upgradeJob } from './upgrade.js';

/** A job file: the job, the profiles it needs by hash, and its evidence. */
export const envelopeSchema = v.strictObject({
  format: v.literal('tactron-job'),
  version: v.literal(JOB_VERSION),
  job: jobSchema,
  profiles: v.record(
    v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal')),
    v.looseObject({}),
  ),
  evidence: v.optional(v.array(evidenceSchema), []),
  /** Pictures and files the evidence names, by their SHA-256. */
  files: v.optional(
    v.record(
      v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal')),
      v.strictObject({
        type: v.picklist(attachmentTypes),
        base64: v.pipe(v.string(), v.regex(/^[A-Za-z0-9+/]*={0,2}$/u, 'base64')),
      }),
    ),
  ),
  /** What the server that gave the file out signed of it. */
  seal: v.optional(sealSchema),
  /** Where evidence came from that was not taken on that server. */
  origins: v.optional(v.array(originSchema)),
  site: v.optional(
    v.strictObject({
      id: v.pipe(v.string(), v.uuid()),
      name: v.pipe(v.string(), v.minLength(1), v.maxLength(120)),
    }),
  ),
});
export type Envelope = v.InferOutput<typeof envelopeSchema>;

export interface PathIssue {
  readonly path: string;
  readonly message: string;
}

/** Issues of a failed check, each with its path as keys joined by dots. */
export function pathIssues(issues: readonly v.BaseIssue<unknown>[]): PathIssue[] {
  return issues.map((issue) => ({
    path: v.getDotPath(issue) ?? issue.path?.map((p) => String(p.key)).join('.') ?? '',
    message: issue.message,
  }));
}

export type FileRead =
  | { readonly ok: true; readonly envelope: Envelope }
  | { readonly ok: false; readonly why: 'newer' | 'invalid'; readonly issues: PathIssue[] };

/**
 * Reads a job file, or a bare job document.
 *
 * @param data parsed JSON
 * @returns the envelope, or what does not fit, with paths; `newer` when a later release wrote it
 */
export function readEnvelope(data: unknown): FileRead {
  const version = (data as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > JOB_VERSION) {
    return {
      ok: false,
      why: 'newer',
      issues: [
        {
          path: 'version',
          message: `this file has format version ${version}; this release reads up to ${JOB_VERSION}`,
        },
      ],
    };
  }
  const bare = typeof data === 'object' && data !== null && !('job' in data);
  const given = bare ? { format: 'tactron-job', version, job: data, profiles: {} } : data;
  const result = v.safeParse(envelopeSchema, upgraded(given));
  if (result.success) return { ok: true, envelope: result.output };
  const issues = pathIssues(result.issues).map((issue) =>
    bare ? { ...issue, path: issue.path.replace(/^job\.?/u, '') } : issue,
  );
  return { ok: false, why: 'invalid', issues };
}

/** An envelope with its job in the format of this release. */
function upgraded(data: unknown): unknown {
  if (typeof data !== 'object' || data === null || !('job' in data)) return data;
  const { version } = data as { version?: unknown };
  return {
    ...data,
    ...(typeof version === 'number' && version < JOB_VERSION ? { version: JOB_VERSION } : {}),
    job: upgradeJob(data.job),
  };
}
