import { ed25519 } from '@noble/curves/ed25519.js';
import * as v from 'valibot';
import { verifyEvidence } from './chain.js';
import type { Evidence } from './evidence.js';
import { hashOf } from './hash.js';

/** What a file can prove of its evidence: signed by the server that reads it, by another, by none. */
export const proofs = ['signedHere', 'signedElsewhere', 'unsigned'] as const;
export type Proof = (typeof proofs)[number];

const sha256 = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal'));
const base64 = v.pipe(v.string(), v.regex(/^[A-Za-z0-9+/]{1,400}={0,2}$/u, 'base64'));

/** The heads of a job's chains as a server signed them when it gave the file out. */
export const sealSchema = v.strictObject({
  jobId: v.pipe(v.string(), v.uuid()),
  revision: v.pipe(v.number(), v.integer(), v.minValue(0)),
  /** Hash of the job document, and of the last change that made it. */
  document: sha256,
  changes: v.union([v.literal(''), sha256]),
  evidence: v.strictObject({
    count: v.pipe(v.number(), v.integer(), v.minValue(0)),
    ends: v.union([v.literal(''), sha256]),
  }),
  at: v.pipe(v.string(), v.isoTimestamp()),
  /** Public key of the server: SubjectPublicKeyInfo of Ed25519 (RFC 8410), base64. */
  key: base64,
  signature: base64,
});
export type Seal = v.InferOutput<typeof sealSchema>;

/** Evidence that came into a server with a file. */
export const originSchema = v.strictObject({
  fromJob: v.pipe(v.string(), v.uuid()),
  firstSeq: v.pipe(v.number(), v.integer(), v.minValue(1)),
  count: v.pipe(v.number(), v.integer(), v.minValue(0)),
  by: v.pipe(v.string(), v.maxLength(120)),
  at: v.pipe(v.string(), v.isoTimestamp()),
  server: v.nullable(v.pipe(v.string(), v.maxLength(64))),
  proof: v.picklist(proofs),
  sealed: v.pipe(v.number(), v.integer(), v.minValue(0)),
});
export type Origin = v.InferOutput<typeof originSchema>;

/** What is signed of a seal: the hash of everything it says, as text. */
export function sealedText(seal: Omit<Seal, 'signature'>): string {
  const { jobId, revision, document, changes, evidence, at, key } = seal;
  const said = { jobId, revision, document, changes, evidence, at, key };
  return `tactron seal ${hashOf(said)}`;
}

/** Bytes before the key itself in SubjectPublicKeyInfo of Ed25519 (RFC 8410, section 4). */
const SPKI_HEAD = '302a300506032b6570032100';

const bytes = (text: string): Uint8Array => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

/**
 * Whether a seal was signed with the key it names (Ed25519, RFC 8032). Whose key that is it does not tell: compare its name.
 *
 * @example isSigned({ ...seal, revision: seal.revision + 1 }) // false
 */
export function isSigned(seal: Seal): boolean {
  try {
    const spki = bytes(seal.key);
    const head = Array.from(spki.subarray(0, 12), (b) => b.toString(16).padStart(2, '0')).join('');
    const text = new TextEncoder().encode(sealedText(seal));
    return (
      head === SPKI_HEAD &&
      spki.length === 44 &&
      ed25519.verify(bytes(seal.signature), text, spki.subarray(12))
    );
  } catch {
    return false;
  }
}

/** What a seal shows about the evidence in a file. */
export type SealCheck = 'unsigned' | 'false' | 'cut' | 'changed' | 'signed';

/**
 * Holds the evidence of a file against its seal.
 *
 * @returns `signed` the pieces the seal stands for are here as they were; `cut` some are missing at the end; `changed` they are
 *   others; `false` the seal was tampered with or belongs to another job
 */
export function checkSeal(
  jobId: string,
  evidence: readonly Evidence[],
  seal: Seal | undefined,
): SealCheck {
  if (!seal) return 'unsigned';
  if (!isSigned(seal) || seal.jobId !== jobId) return 'false';
  const { count, ends } = seal.evidence;
  if (evidence.length < count) return 'cut';
  const check = verifyEvidence(evidence.slice(0, count));
  return check.ok && check.ends === ends ? 'signed' : 'changed';
}

/** Short name of a key, to be compared by eye: the first 16 digits of the hash of its text. */
export function keyName(key: string): string {
  return hashOf(key).slice(0, 16);
}
