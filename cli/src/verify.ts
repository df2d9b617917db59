import { hashOf, hashOfBytes, readEnvelope, verifyEvidence } from '@tactron/core/job';
import { BadInput, type Outcome } from './bad-input.js';

/**
 * Checks what a job file claims: its chain of evidence, its profiles and its files against the hashes that name them.
 *
 * @returns `ends`, to be compared with the printed record: it tells whether anything is missing at the end
 */
export function verify(data: unknown): Outcome {
  const read = readEnvelope(data);
  if (!read.ok) throw new BadInput(read.issues[0].path, read.issues[0].message);
  const { evidence, files = {}, profiles } = read.envelope;
  const chain = verifyEvidence(evidence);
  const wrong = [
    ...Object.entries(profiles)
      .filter(([sha, profile]) => hashOf(profile) !== sha)
      .map(([sha]) => `profiles.${sha}`),
    ...Object.entries(files)
      .filter(([sha, { base64 }]) => hashOfBytes(Buffer.from(base64, 'base64')) !== sha)
      .map(([sha]) => `files.${sha}`),
  ];
  const named = evidence.flatMap((e) => (e.kind === 'attachment' ? [e.body.sha256] : []));
  const missing = [...new Set(named)].filter((sha) => !files[sha]);
  return {
    output: { ...chain, ok: chain.ok && wrong.length === 0, wrong, missingFiles: missing },
    stop: !chain.ok || wrong.length > 0,
  };
}
