import {
  checkSeal,
  hashOf,
  hashOfBytes,
  keyName,
  readEnvelope,
  verifyEvidence,
  type Evidence,
} from '@tactron/core/job';
import { BadInput, type Outcome } from './bad-input.js';

/** What each answer about the signature proves, and what it does not. */
const meaning = {
  unsigned:
    'No server signed this file. The chain proves that the entries stand in their order unchanged since they were chained; it does not prove who chained them, nor that none is missing at the end.',
  signed:
    'The server with this key held exactly these first entries when it gave the file out. It does not prove whose key it is: compare its name with the one your server shows. Entries behind them are not signed.',
  cut: 'Fewer entries are here than were signed: the end was cut off after the file was made.',
  changed: 'The entries are not those that were signed: they were changed after the file was made.',
  false:
    'The signature does not fit what it claims: it was tampered with, or belongs to another job.',
} as const;

/**
 * Checks what a job file claims: its chain of evidence, the signature of the server that gave it out, its profiles and its
 * files against the hashes that name them.
 *
 * @param beside files of a bundle by the name they have in it
 * @returns `ends`, to be compared with the printed record: it tells whether anything is missing at the end
 */
export function verify(
  data: unknown,
  beside: ReadonlyMap<string, Uint8Array> = new Map(),
): Outcome {
  const read = readEnvelope(data);
  if (!read.ok) throw new BadInput(read.issues[0].path, read.issues[0].message);
  const { job, files = {}, profiles, seal, origins = [] } = read.envelope;
  const evidence = read.envelope.evidence as Evidence[];
  const chain = verifyEvidence(evidence);
  const all = new Map([
    ...Object.entries(files).map(([sha, f]) => [sha, Buffer.from(f.base64, 'base64')] as const),
    ...beside,
  ]);
  const wrong = [
    ...Object.entries(profiles)
      .filter(([sha, profile]) => hashOf(profile) !== sha)
      .map(([sha]) => `profiles.${sha}`),
    ...[...all].filter(([sha, body]) => hashOfBytes(body) !== sha).map(([sha]) => `files.${sha}`),
  ];
  const named = evidence.flatMap((e) => (e.kind === 'attachment' ? [e.body.sha256] : []));
  const signature = checkSeal(job.id, evidence, seal);
  const sound = chain.ok && wrong.length === 0 && ['signed', 'unsigned'].includes(signature);
  return {
    output: {
      ...chain,
      ok: sound,
      signature,
      meaning: meaning[signature],
      ...(seal
        ? {
            key: keyName(seal.key),
            signedAt: seal.at,
            signedEntries: seal.evidence.count,
            documentAsSigned: hashOf(job) === seal.document,
          }
        : {}),
      origins,
      wrong,
      missingFiles: [...new Set(named)].filter((sha) => !all.has(sha)),
    },
    stop: !sound,
  };
}
