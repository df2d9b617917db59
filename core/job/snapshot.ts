import type { Evidence, EvidenceOf } from './evidence.js';

/**
 * The newest snapshot of the settings of a kind.
 *
 * @returns undefined where nobody has read them
 * @example snapshotOf(evidence, 'asLeft')?.body.values
 */
export function snapshotOf(
  evidence: readonly Evidence[],
  which: 'asFound' | 'asLeft',
): EvidenceOf<'snapshot'> | undefined {
  return evidence.findLast(
    (e): e is EvidenceOf<'snapshot'> => e.kind === 'snapshot' && e.body.which === which,
  );
}
