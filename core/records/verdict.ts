import {
  readingTold,
  supersededBy,
  type Evidence,
  type EvidenceOf,
  type ProcedureStep,
} from '../job/index.js';

/** `past`: the procedure of the job as it is has no such step any more. */
export type StepState = 'open' | 'pass' | 'fail' | 'stale' | 'past';
type Reading = EvidenceOf<'reading'>;

/** A step with the reading that stands for it now, and the readings it superseded. */
export interface StepRecord {
  readonly step: ProcedureStep;
  readonly state: StepState;
  readonly reading: Reading | undefined;
  /** Readings that another stands for. */
  readonly earlier: readonly Reading[];
  /** Readings that nothing supersedes, beside the newest: two people read the same step apart from each other. */
  readonly beside: readonly Reading[];
}

/** The order in which readings were taken, whatever the order in which they arrived. */
const byTime = (x: Reading, y: Reading): number =>
  x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id);

interface Standing {
  readonly reading: Reading | undefined;
  readonly earlier: readonly Reading[];
  readonly beside: readonly Reading[];
}

/** The readings of each step, the newest that nothing supersedes before all. */
function readingsBySubject(evidence: readonly Evidence[]): ReadonlyMap<string, Standing> {
  const readings = evidence.filter((e): e is Reading => e.kind === 'reading').sort(byTime);
  const superseded = new Set(readings.flatMap((r) => supersededBy(r)));
  const by = new Map<string, Reading[]>();
  for (const r of readings) by.set(r.subject, [...(by.get(r.subject) ?? []), r]);
  return new Map(
    [...by].map(([subject, all]) => {
      const stands = all.filter((r) => !superseded.has(r.id));
      const reading = stands.at(-1);
      const earlier = all.filter((r) => superseded.has(r.id));
      return [subject, { reading, earlier, beside: stands.slice(0, -1) }];
    }),
  );
}

const nothing: Standing = { reading: undefined, earlier: [], beside: [] };

/**
 * Keys of dead loops that have been read wrong at any time: their wires and contacts are asked for one by one, and stay in the
 * procedure once they are mended.
 */
export const wrongLoops = (evidence: readonly Evidence[]): ReadonlySet<string> =>
  new Set(
    evidence.flatMap((e) =>
      e.kind === 'reading' && e.subject.startsWith('dead.loop.') && e.body.verdict === 'fail'
        ? [e.subject]
        : [],
    ),
  );

/**
 * Joins steps with their readings; what hangs on an earlier reading is expected by that. A reading whose basis is no longer the step's is stale: it says nothing about the job
 * as it is now, and is to be taken again.
 */
export function stepRecords(
  steps: readonly ProcedureStep[],
  evidence: readonly Evidence[],
): StepRecord[] {
  const readings = readingsBySubject(evidence);
  const records = steps.map((step): StepRecord => {
    const standing = readings.get(step.key) ?? nothing;
    const { reading } = standing;
    const state: StepState = !reading
      ? 'open'
      : reading.body.step.basis !== step.basis
        ? 'stale'
        : reading.body.verdict;
    return { step, state, ...standing };
  });
  const by = new Map(records.map((record) => [record.step.key, record]));
  return records.map((record) => following(record, by.get(hangsOn[record.step.key] ?? '')));
}

/** Steps whose expected value goes with what was read in an earlier one. */
const hangsOn: Readonly<Record<string, string>> = { 'link.volts': 'supply.volts' };

/**
 * A step as it is expected by what was just read before it: a link charged by 412 V is no faulty one of 400 V. What it rests
 * on stays the plan's, and a value that is out of its own limits is followed by nothing.
 */
function following(record: StepRecord, before: StepRecord | undefined): StepRecord {
  const { expect } = record.step;
  const wanted = before?.step.expect;
  if (expect?.kind !== 'range' || wanted?.kind !== 'range') return record;
  if (!before?.reading || before.state !== 'pass') return record;
  const read = readingTold(before.reading.body).values.flatMap(({ value }) =>
    typeof value === 'number' ? [value] : [],
  );
  const mean = read.reduce((sum, x) => sum + x, 0) / read.length;
  if (!(mean > 0) || mean === wanted.nominal) return record;
  const scaled = (x: number): number => Math.round(((x * mean) / wanted.nominal) * 10) / 10;
  const [lo, nominal, hi] = [expect.lo, expect.nominal, expect.hi].map(scaled);
  const must = { code: `${record.step.key}.asRead`, args: { volts: nominal, read: mean } };
  return { ...record, step: { ...record.step, must, expect: { ...expect, lo, nominal, hi } } };
}

/**
 * Readings of steps that the procedure of the job as it is does not have any more, with the step as it was when they were
 * taken. They stay, print, and count for nothing.
 */
export function pastRecords(
  steps: readonly ProcedureStep[],
  evidence: readonly Evidence[],
): StepRecord[] {
  const now = new Set(steps.map((s) => s.key));
  return [...readingsBySubject(evidence)].flatMap(([subject, standing]): StepRecord[] => {
    const { reading } = standing;
    return reading && !now.has(subject)
      ? [{ step: reading.body.step, state: 'past', ...standing }]
      : [];
  });
}
