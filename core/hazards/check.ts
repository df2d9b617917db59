import type { Profile, Value } from '../catalogue/index.js';
import type { Evidence, EvidenceOf, Finding, Job } from '../job/index.js';
import { plateFindings } from '../line/index.js';
import { planJob, type NoPlan, type PlanResult } from '../plan/index.js';
import { follow, hazardContext } from './rule.js';
import { hazardRules } from './rules/index.js';

const weight = { stop: 0, warn: 1, advise: 2 } as const;

/**
 * All findings of a job: plates, plan, hazards; the gravest first, always in the same order.
 *
 * @param found settings as found, where they were noted
 * @param plan the plan of this very job, where it was made already
 */
export function checkJob(
  job: Job,
  profile: Profile,
  found?: Readonly<Record<string, Value>>,
  plan?: PlanResult | NoPlan,
): Finding[] {
  const findings = [...plateFindings(job, profile), ...schemeFindings(job, profile, found, plan)];
  return findings
    .map((f, i) => ({ f, i }))
    .sort((x, y) => weight[x.f.severity] - weight[y.f.severity] || x.i - y.i)
    .map(({ f }) => f);
}

/**
 * Findings about wishes and circuit alone: plan and hazards, without the plates.
 *
 * @param found settings as found, where they were noted
 * @param plan the plan of this very job, where it was made already
 */
export function schemeFindings(
  job: Job,
  profile: Profile,
  found?: Readonly<Record<string, Value>>,
  plan: PlanResult | NoPlan = planJob(job, profile, found),
): Finding[] {
  // Without a wish for start and stop the plan is a guess: nothing is said against it.
  if (job.scheme.startStop === undefined) return [];
  const context = hazardContext(job, profile);
  return [
    ...(plan.ok ? plan.findings : []),
    ...(context ? hazardRules.flatMap((rule) => follow(rule, context)) : []),
  ];
}

/** Subject under which the acceptance of a finding is kept. */
export const acceptanceSubject = ({ key, basis }: Finding): string =>
  `${key}#${basis.slice(0, 16)}`;

/** The acceptance that covers a finding: of the same key, and made while everything it rests on was the same. */
export function acceptanceOf(
  finding: Finding,
  evidence: readonly Evidence[],
): EvidenceOf<'acceptance'> | undefined {
  const subject = acceptanceSubject(finding);
  return evidence.findLast(
    (e): e is EvidenceOf<'acceptance'> => e.kind === 'acceptance' && e.subject === subject,
  );
}
