import type { Evidence, EvidenceOf, ProcedureStep } from '../job/index.js';

export type StepState = 'open' | 'pass' | 'fail' | 'stale';

/** A step with the reading that stands for it now, and the readings it superseded. */
export interface StepRecord {
  readonly step: ProcedureStep;
  readonly state: StepState;
  readonly reading: EvidenceOf<'reading'> | undefined;
  readonly earlier: readonly EvidenceOf<'reading'>[];
}

/**
 * Joins steps with their readings. A reading whose basis is no longer the step's is stale: it says nothing about the job
 * as it is now, and is to be taken again.
 */
export function stepRecords(
  steps: readonly ProcedureStep[],
  evidence: readonly Evidence[],
): StepRecord[] {
  const readings = evidence.filter((e): e is EvidenceOf<'reading'> => e.kind === 'reading');
  const superseded = new Set(readings.map((r) => r.supersedes));
  return steps.map((step) => {
    const all = readings.filter((r) => r.subject === step.key);
    const standing = all.filter((r) => !superseded.has(r.id));
    const reading = standing.at(-1);
    const state: StepState = !reading
      ? 'open'
      : reading.body.step.basis !== step.basis
        ? 'stale'
        : reading.body.verdict;
    return { step, state, reading, earlier: all.filter((r) => r !== reading) };
  });
}
