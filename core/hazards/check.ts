import type { Profile, Value } from '../catalogue/index.js';
import type { Evidence, EvidenceOf, Finding, Job } from '../job/index.js';
import { planJob } from '../plan/index.js';
import { plateFindings } from '../line/index.js';
import {
  circuitSettles,
  contactorAsStart,
  inputsSwitch,
  lampSaysLess,
  loadsOnTheirSide,
  suppliesBear,
} from './rules/circuit.js';
import { hazardContext, type Rule } from './rules/context.js';
import { bothDirectionsReleased, directionNotLocked, unknownPolicy } from './rules/direction.js';
import {
  alternatingAtControl,
  contactsBear,
  contactsOnZeroSide,
  protectiveConductorWhole,
} from './rules/ratings.js';
import {
  conditionReturnStarts,
  emergencyStopBehaviour,
  latchOutlivesPower,
  placeChangeHazards,
  resetStarts,
  restartWhenPowerReturns,
  stopReleaseStarts,
} from './rules/restart.js';

/** Every hazard rule; each finds nothing where it does not apply. */
export const hazardRules: readonly Rule[] = [
  inputsSwitch,
  circuitSettles,
  suppliesBear,
  restartWhenPowerReturns,
  latchOutlivesPower,
  stopReleaseStarts,
  conditionReturnStarts,
  placeChangeHazards,
  emergencyStopBehaviour,
  resetStarts,
  contactsBear,
  alternatingAtControl,
  protectiveConductorWhole,
  contactsOnZeroSide,
  bothDirectionsReleased,
  directionNotLocked,
  contactorAsStart,
  loadsOnTheirSide,
  lampSaysLess,
  unknownPolicy,
];

const weight = { stop: 0, warn: 1, advise: 2 } as const;

/**
 * All findings of a job: plates, plan, hazards; the gravest first, always in the same order.
 *
 * @param found settings as found, where they were noted
 */
export function checkJob(
  job: Job,
  profile: Profile,
  found?: Readonly<Record<string, Value>>,
): Finding[] {
  const findings = [...plateFindings(job, profile), ...schemeFindings(job, profile, found)];
  return findings
    .map((f, i) => ({ f, i }))
    .sort((x, y) => weight[x.f.severity] - weight[y.f.severity] || x.i - y.i)
    .map(({ f }) => f);
}

/**
 * Findings about wishes and circuit alone: plan and hazards, without the plates.
 *
 * @param found settings as found, where they were noted
 */
export function schemeFindings(
  job: Job,
  profile: Profile,
  found?: Readonly<Record<string, Value>>,
): Finding[] {
  // Without a wish for start and stop the plan is a guess: nothing is said against it.
  if (job.scheme.startStop === undefined) return [];
  const plan = planJob(job, profile, found);
  const context = hazardContext(job, profile);
  return [
    ...(plan.ok ? plan.findings : []),
    ...(context ? hazardRules.flatMap((rule) => rule(context)) : []),
  ];
}

const schemeRules =
  /^(restart|latch|stop|contact\.overload|pe\.switched|condition|place\.takeoverStarts|place\.stopIgnored|estop|reset|input|supply24|reference10|circuit|lamp|contactor\.normalStops|load\.wrongSide|directions?|policy|plan|decision)\b/u;

/** A finding about wishes and circuit, put right on the Scheme or the Land stage. */
export const isSchemeRule = (rule: string): boolean => schemeRules.test(rule);

/** The acceptance that covers a finding: of the same key, and made while everything it rests on was the same. */
export function acceptanceOf(
  finding: Finding,
  evidence: readonly Evidence[],
): EvidenceOf<'acceptance'> | undefined {
  return evidence.findLast(
    (e): e is EvidenceOf<'acceptance'> =>
      e.kind === 'acceptance' && e.subject === `${finding.key}#${finding.basis.slice(0, 16)}`,
  );
}

/** Subject under which the acceptance of a finding is kept. */
export function acceptanceSubject(finding: Finding): string {
  return `${finding.key}#${finding.basis.slice(0, 16)}`;
}
