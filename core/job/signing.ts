import type { Evidence, EvidenceOf } from './evidence.js';
import { hashOf } from './hash.js';
import type { Job } from './job.js';

/** Roles that close a record where the site settles none. */
export const usualRoles = ['Commissioned by', 'Accepted by'] as const;

/** Kinds that say something of a signing and are not what is signed. */
const aboutSigning: ReadonlySet<Evidence['kind']> = new Set(['issue', 'signature', 'recordFile']);

/** Evidence that a signature can cover, in any order. */
export const signable = (evidence: readonly Evidence[]): Evidence[] =>
  evidence.filter((e) => !aboutSigning.has(e.kind));

/** What a piece says, apart from what a server noted of its arrival: the same on the device that made it and afterwards. */
const contentOf = ({
  id,
  jobId,
  jobRevision,
  kind,
  subject,
  body,
  supersedes,
  why,
  author,
  atClient,
}: Evidence): string =>
  hashOf([
    id,
    jobId,
    jobRevision,
    kind,
    subject,
    body,
    supersedes ?? null,
    why ?? null,
    author,
    atClient,
  ]);

/**
 * Hash of what is signed: the document, the profile and what each piece of evidence says, in no order.
 *
 * @param covers ids of the pieces; left out, all that can be covered
 * @returns SHA-256 in hexadecimal
 * @example contentHashOf(job, profile, evidence) === contentHashOf(job, profile, evidence.toReversed()) // true
 */
export function contentHashOf(
  job: Job,
  profile: unknown,
  evidence: readonly Evidence[],
  covers?: readonly string[],
): string {
  const ids = covers && new Set(covers);
  const pieces = signable(evidence).filter((e) => !ids || ids.has(e.id));
  return hashOf([job, hashOf(profile), pieces.map(contentOf).sort()]);
}

/** How far the record of a job is signed. */
export interface Signing {
  /** Issue of the record that is worked on, or closed, from 1. */
  readonly number: number;
  /** What the signatures name; undefined before the first of this issue. */
  readonly frozen: EvidenceOf<'issue'> | undefined;
  /** Signatures of this issue, in their order. */
  readonly signed: readonly EvidenceOf<'signature'>[];
  /** Roles that have not signed it yet; those of the frozen issue. */
  readonly missing: readonly string[];
  /** Every role has signed: the job is changed no more until another issue is opened. */
  readonly closed: boolean;
  /** Why this issue was opened; undefined for the first. */
  readonly opened: EvidenceOf<'issue'> | undefined;
}

/**
 * Reads how far a record is signed from its evidence. An issue freezes what is signed; signatures name its hash; every role of
 * it closes it. What is frozen anew before that needs every signature again.
 *
 * @param roles roles that must sign an issue that is not frozen yet
 * @example signingOf([]).missing // ['Commissioned by', 'Accepted by']
 */
export function signingOf(
  evidence: readonly Evidence[],
  roles: readonly string[] = usualRoles,
): Signing {
  const own = evidence
    .filter((e) => e.kind === 'issue' || e.kind === 'signature')
    // What is frozen and signed in the same instant is frozen first.
    .sort(
      (x, y) =>
        x.atClient.localeCompare(y.atClient) ||
        x.kind.localeCompare(y.kind) ||
        x.id.localeCompare(y.id),
    );
  let state: Signing = {
    number: 1,
    frozen: undefined,
    signed: [],
    missing: roles,
    closed: false,
    opened: undefined,
  };
  for (const e of own) state = after(state, e, roles);
  return state;
}

function after(
  state: Signing,
  e: EvidenceOf<'issue'> | EvidenceOf<'signature'>,
  roles: readonly string[],
): Signing {
  if (e.kind === 'issue' && e.body.opens) {
    if (!state.closed) return state;
    const number = state.number + 1;
    return { number, frozen: undefined, signed: [], missing: roles, closed: false, opened: e };
  }
  if (state.closed) return state;
  if (e.kind === 'issue')
    return { ...state, frozen: e, signed: [], missing: e.body.roles ?? usualRoles };
  const { frozen, missing } = state;
  if (e.body.documentHash !== frozen?.body.contentHash || !missing.includes(e.body.role))
    return state;
  const open = missing.filter((role) => role !== e.body.role);
  return { ...state, signed: [...state.signed, e], missing: open, closed: open.length === 0 };
}

/**
 * Whether what an issue froze is still what the job is: nothing of the document, the profile or the covered evidence differs.
 *
 * @returns false too where a piece that it covers is not here
 */
export function standsAsFrozen(
  job: Job,
  profile: unknown,
  evidence: readonly Evidence[],
  frozen: EvidenceOf<'issue'>,
): boolean {
  const { contentHash, covers = [] } = frozen.body;
  return contentHashOf(job, profile, evidence, covers) === contentHash;
}

/** Evidence that is not covered by an issue: it came after what was signed. */
export function arrivedAfter(
  evidence: readonly Evidence[],
  { body }: EvidenceOf<'issue'>,
): Evidence[] {
  const covered = new Set(body.covers);
  return signable(evidence).filter((e) => !covered.has(e.id));
}
