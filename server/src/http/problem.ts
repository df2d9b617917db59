import type { ErrorRequestHandler, Response } from 'express';
import * as v from 'valibot';
import { pathIssues, type PathIssue } from '@tactron/core/job';

/** An answer that says what is wrong, where, and what to do (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(title);
  }
}

/** Checks a body or query. @throws Problem 400 with the path of everything that does not fit */
export function checked<S extends v.GenericSchema>(schema: S, data: unknown): v.InferOutput<S> {
  const result = v.safeParse(schema, data);
  if (result.success) return result.output;
  throw invalid(pathIssues(result.issues));
}

export function invalid(issues: readonly PathIssue[]): Problem {
  const [first] = issues;
  return new Problem(
    400,
    'invalid',
    `Does not fit at "${first.path}": ${first.message}. Nothing was stored.`,
    { path: first.path, issues },
  );
}

export function send(res: Response, problem: Problem): void {
  res
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `urn:tactron:problem:${problem.type}`,
        title: problem.title,
        status: problem.status,
        ...problem.more,
      }),
    );
}

/** PostgreSQL's codes for text it cannot hold: a null character, a broken surrogate. */
const textCodes = new Set(['22P05', '22021', '22P02']);
/** Its codes for no room on the disk, and for too many asking at once. */
const fullCodes = new Set(['53100', '58030', 'ENOSPC']);
const busyCodes = new Set(['53300', '53400', '53200', '40001', '40P01', '55P03']);

const goneCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08003',
  '08001',
]);

/** What the driver and the mapper say when the connection went away under them. */
const gone =
  /Connection terminated|timeout exceeded when trying to connect|not established|AlreadyReleased|already released|not queryable|Driver not Connected|Cannot use a pool after|shutting down|starting up/iu;

/** What Express and its body parser throw, in words. */
function requestProblem(error: {
  type?: string;
  status?: number;
  expose?: boolean;
  message?: string;
}): Problem | undefined {
  const { type, status, expose, message } = error;
  if (error instanceof URIError)
    return new Problem(400, 'address', 'The address holds a sign that cannot be read.');
  if (type === 'entity.too.large')
    return new Problem(413, 'tooLarge', 'The body is too large. Nothing was stored.');
  if (type === 'entity.parse.failed')
    return new Problem(400, 'notJson', 'The body is no JSON. Nothing was stored.', { path: '' });
  if (type === 'request.aborted' || type === 'request.size.invalid')
    return new Problem(400, 'aborted', 'The body did not arrive whole. Nothing was stored.');
  if (!expose || status === undefined || status < 400 || status >= 500) return undefined;
  const why = message ?? 'it cannot be read';
  return new Problem(status, 'badRequest', `The request does not fit: ${why}. Nothing was stored.`);
}

/** What PostgreSQL and its driver throw, in words. */
function databaseProblem(error: {
  name?: string;
  code?: string;
  message?: string;
  driverError?: { code?: string };
}): Problem | undefined {
  const { name = '', code = '', message = '', driverError } = error;
  const says = (codes: ReadonlySet<string>): boolean =>
    codes.has(code) || codes.has(driverError?.code ?? '');
  if (says(textCodes))
    return new Problem(
      400,
      'text',
      'The text holds a character that cannot be stored. Take it out. Nothing was stored.',
    );
  if (says(fullCodes))
    return new Problem(
      507,
      'storageFull',
      "The server's disk is full. Your work is kept here and is sent when there is room.",
    );
  if (says(busyCodes))
    return new Problem(
      503,
      'busy',
      'The database is busy. Your work is kept here and is sent again.',
    );
  if (says(new Set(['23505'])))
    return new Problem(
      409,
      'raced',
      'The same thing arrived twice at the same moment. Try again. Nothing was stored.',
    );
  if (says(goneCodes) || gone.test(`${name} ${message}`))
    return new Problem(
      503,
      'databaseGone',
      'The database does not answer. Your work is kept here and is sent when it is back.',
    );
  return undefined;
}

/** Last handler: problems as they are, known failures in words, anything else without internals. */
export const problemHandler: ErrorRequestHandler = (error: unknown, _req, res, _next) => {
  if (res.headersSent) {
    res.end();
    return;
  }
  if (error instanceof Problem) return send(res, error);
  const known = requestProblem(error as object) ?? databaseProblem(error as object);
  if (known) return send(res, known);
  console.error(error);
  send(
    res,
    new Problem(
      500,
      'internal',
      'Something went wrong in the server. Your work is kept here; try again.',
    ),
  );
};
