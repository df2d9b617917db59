import type { Profile, Value } from '../catalogue/index.js';
import type { Evidence, Job } from '../job/index.js';
import { expectedPhaseOhm } from '../line/index.js';
import { keyingLines, keyingWays, testValuesFor } from '../plan/index.js';
import {
  foundValues,
  heldValues,
  keyedShare,
  keyedSince,
  keySessionSince,
  testValuesHeld,
} from '../records/index.js';
import { saidLines, valueText } from './settings.js';
import type { Derived } from './types.js';

/** What is keyed in the session that goes on, and how far the whole is. */
export function keyingOf(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
  factory: Readonly<Record<string, Value>>,
): Pick<Derived, 'lines' | 'keying' | 'keyingWays'> {
  const since = keySessionSince(evidence);
  const first = foundValues(job, profile, evidence) ?? factory;
  const begun = heldValues(job, profile, evidence, since) ?? factory;
  const now = heldValues(job, profile, evidence) ?? factory;
  return {
    lines: saidLines(
      keyingLines(job, profile, begun),
      profile,
      keyedSince(evidence, since),
      expectedPhaseOhm(job, profile),
    ),
    keyingWays: keyingWays(job, profile, begun),
    keying: keyedShare(job.adopted?.settings ?? {}, first, now),
  };
}

/** Values for the tests: those that are in the device, else those that are offered. */
export function saidTestValues(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Derived['testValues'] {
  const planned = job.adopted?.settings ?? {};
  const inside = Object.entries(testValuesHeld(job, profile, evidence)).flatMap(([code, test]) =>
    planned[code] ? [{ code, test, planned: planned[code].value }] : [],
  );
  return (inside.length > 0 ? inside : testValuesFor(job, profile)).map((v) => ({
    ...v,
    held: inside.length > 0,
    name: profile.settings[v.code]?.name ?? '',
    testText: valueText(profile.settings[v.code], v.test),
    plannedText: valueText(profile.settings[v.code], v.planned),
  }));
}
