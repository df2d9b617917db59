import { supersededBy, type Evidence, type EvidenceOf } from './evidence.js';

/**
 * Pictures and files that stand now: neither superseded nor taken back.
 *
 * @param subject what they were taken for; left out, all
 * @example attachmentsOf(evidence, 'plate.motor').map((a) => a.body.name) // ['plate.jpg']
 */
export function attachmentsOf(
  evidence: readonly Evidence[],
  subject?: string,
): EvidenceOf<'attachment'>[] {
  const all = evidence.filter((e) => e.kind === 'attachment');
  const gone = new Set(all.flatMap(supersededBy));
  return all.filter(
    (e) => !gone.has(e.id) && !e.body.withdrawn && (subject === undefined || e.subject === subject),
  );
}
