import {
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  type KeyObject,
} from 'node:crypto';
import type { DataSource } from 'typeorm';
import {
  checkSeal,
  hashOf,
  keyName,
  sealedText,
  type Envelope,
  type Evidence,
  type Job,
  type Origin,
  type Proof,
  type Seal,
} from '@tactron/core/job';
import { EvidenceOriginRow, JobChangeRow, JobRow } from '../db/entities.js';
import { invalid } from '../http/problem.js';

/** This server's key: with it the heads of chains are signed when a job goes out. */
export interface SigningKey {
  readonly secret: KeyObject;
  /** Public part, SubjectPublicKeyInfo in base64. */
  readonly open: string;
}

/**
 * The key of the environment, or one for this process alone.
 *
 * @param pkcs8 secret part of an Ed25519 key, PKCS#8 in base64
 */
export function signingKey(pkcs8?: string): SigningKey {
  const secret = pkcs8
    ? createPrivateKey({ key: Buffer.from(pkcs8, 'base64'), format: 'der', type: 'pkcs8' })
    : generateKeyPairSync('ed25519').privateKey;
  const open = createPublicKey(secret).export({ format: 'der', type: 'spki' }).toString('base64');
  return { secret, open };
}

/** Signs the heads of a job's two chains as they stand. */
export async function sealOf(
  db: DataSource,
  key: SigningKey,
  document: Job,
  evidence: readonly Evidence[],
): Promise<Seal> {
  const { revision } = await db
    .getRepository(JobRow)
    .findOneOrFail({ select: { id: true, revision: true }, where: { id: document.id } });
  const last = await db
    .getRepository(JobChangeRow)
    .findOne({ select: { id: true, hash: true }, where: { jobId: document.id, revision } });
  const said: Omit<Seal, 'signature'> = {
    jobId: document.id,
    revision,
    document: hashOf(document),
    changes: last?.hash ?? '',
    evidence: { count: evidence.length, ends: evidence.at(-1)?.hash ?? '' },
    at: new Date().toISOString(),
    key: key.open,
  };
  const signature = sign(null, Buffer.from(sealedText(said)), key.secret).toString('base64');
  return { ...said, signature };
}

/** What a file proves of its evidence, by its seal. */
export interface Proved {
  readonly proof: Proof;
  readonly server: string | null;
  /** Pieces from the first on that the seal stands for. */
  readonly sealed: number;
}

/**
 * Holds a file against its seal.
 *
 * @throws Problem 400 when the seal is false, of another job, or the chain is not the one it was signed over: changed or cut
 */
export function proved({ job, evidence, seal }: Envelope, own: SigningKey): Proved {
  if (!seal) return { proof: 'unsigned', server: null, sealed: 0 };
  const { count } = seal.evidence;
  const why = {
    unsigned: undefined,
    signed: undefined,
    false: 'the signature does not fit: the seal was changed, or belongs to another job',
    cut: `the evidence was cut: ${count} pieces were signed, ${evidence.length} are in the file`,
    changed: 'the evidence is not what was signed: it was changed after the file was made',
  }[checkSeal(job.id, evidence as Evidence[], seal)];
  if (why) throw invalid([{ path: 'seal', message: why }]);
  return {
    proof: seal.key === own.open ? 'signedHere' : 'signedElsewhere',
    server: keyName(seal.key),
    sealed: count,
  };
}

/** Where evidence of a job came from that was not taken on this server. */
export async function originsOf(db: DataSource, jobId: string): Promise<Origin[]> {
  const rows = await db
    .getRepository(EvidenceOriginRow)
    .find({ where: { jobId }, order: { firstSeq: 'ASC' } });
  return rows.map(({ fromJob, firstSeq, count, author, at, server, proof, sealed }) => ({
    fromJob,
    firstSeq,
    count,
    by: author.name,
    at: at.toISOString(),
    server,
    proof,
    sealed,
  }));
}
