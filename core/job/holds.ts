import type { Evidence, EvidenceOf } from './evidence.js';
import type { ProcedureStep } from './step.js';

/**
 * Hold that a step belongs to: what comes after its part of the procedure waits for it.
 *
 * @example holdOf(step) // 'live.stops'
 */
export const holdOf = ({ part, section, act, key }: ProcedureStep): string =>
  `${part}.${section ?? (act ?? key).replace(/^dead\./u, '')}`;

/** What proves a panel dead: nobody may pass it over. */
export const neverPassedOver = ({ cautions }: ProcedureStep): boolean =>
  cautions.includes('provesDead');

/**
 * Holds that somebody has passed over with a reason, by their id; the latest where it was done more than once.
 *
 * @example passedOver(evidence).get('live.stops')?.body.reason
 */
export function passedOver(
  evidence: readonly Evidence[],
): ReadonlyMap<string, EvidenceOf<'confirmation'>> {
  const own = evidence
    .filter((e): e is EvidenceOf<'confirmation'> => e.kind === 'confirmation')
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  return new Map(own.filter((e) => e.body.overridden).map((e) => [e.body.hold, e]));
}
