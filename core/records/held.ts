import {
  factorySettings,
  keyedInto,
  modelOf,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import { testValuesIn, type Evidence, type EvidenceOf, type Job } from '../job/index.js';

type Keyed = EvidenceOf<'keyed'>;

/** Evidence in the order in which it was made, whatever the order in which it arrived. */
const inOrder = (evidence: readonly Evidence[]): Evidence[] =>
  [...evidence].sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));

/**
 * Moment at which the session of keying that goes on now began.
 *
 * @returns undefined where none goes on: it was ended, or the sheet was left
 */
export function keySessionSince(evidence: readonly Evidence[]): string | undefined {
  const last = inOrder(evidence).findLast((e) => e.kind === 'keySession');
  return last?.kind === 'keySession' && last.body.state === 'begun' ? last.atClient : undefined;
}

/** Marks of keyed lines that stand, in their order: one that was taken back is none. */
function marksOf(evidence: readonly Evidence[]): Keyed[] {
  const marks: Keyed[] = [];
  for (const e of inOrder(evidence)) {
    if (e.kind !== 'keyed') continue;
    if (!e.body.undone) marks.push(e);
    else {
      const at = marks.findLastIndex((m) => m.body.code === e.body.code);
      if (at >= 0) marks.splice(at, 1);
    }
  }
  return marks;
}

/** Values of the lines that were keyed from a moment on, by the key of the line; none where no session goes on. */
export function keyedSince(
  evidence: readonly Evidence[],
  since: string | undefined,
): Record<string, Value> {
  if (since === undefined) return {};
  return Object.fromEntries(
    marksOf(evidence)
      .filter((m) => m.atClient >= since)
      .map(({ body }) => [body.code, body.value]),
  );
}

/** Setting that a line of the keying sheet changes: a line that frees a task or takes command has a name of its own. */
const settingOf = (line: string): string => line.replace(/\.(?:makeSafe|again|free)$/u, '');

/**
 * What the device holds as far as is known: the factory's values, with what was found, and every line keyed since, test values
 * among them. A reset
 * to the factory's values forgets all that was keyed before it.
 *
 * @param until only what was done before this moment
 * @returns undefined where the model is not known
 * @example heldValues(job, profile, evidence)['211'] // 4
 */
export function heldValues(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
  until?: string,
): Record<string, Value> | undefined {
  const model = modelOf(profile, job.profile.model);
  if (!model) return undefined;
  const factory = factorySettings(profile, model);
  const before = until === undefined ? evidence : evidence.filter((e) => e.atClient < until);
  const marks = new Set<Evidence>(marksOf(before));
  let held: Record<string, Value> = { ...factory };
  for (const e of inOrder(before)) {
    if (e.kind === 'snapshot' && e.body.which === 'asFound')
      held = e.body.source === 'factory' ? { ...factory } : { ...held, ...e.body.values };
    if (e.kind === 'temporary') held = { ...held, ...e.body.values };
    if (!marks.has(e) || e.kind !== 'keyed') continue;
    const code = settingOf(e.body.code);
    if (profile.settings[code]) held = keyedInto(profile, factory, held, code, e.body.value);
  }
  return held;
}

/**
 * How far the plan's settings are keyed: of those that had to be changed, how many the device holds now.
 *
 * @param first what the device held before anything was keyed
 */
export function keyedShare(
  planned: Readonly<Record<string, { readonly value: Value }>>,
  first: Readonly<Record<string, Value>>,
  held: Readonly<Record<string, Value>>,
): { readonly done: number; readonly of: number } {
  const due = Object.entries(planned).filter(
    ([code, { value }]) => first[code] !== value || held[code] !== value,
  );
  return { done: due.filter(([code, { value }]) => held[code] === value).length, of: due.length };
}

/** Test values that the device still holds: one that was keyed back in the sheet is in force no longer. */
export function testValuesHeld(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Record<string, Value> {
  const held = heldValues(job, profile, evidence) ?? {};
  return Object.fromEntries(
    Object.entries(testValuesIn(evidence)).filter(([code, value]) => held[code] === value),
  );
}
