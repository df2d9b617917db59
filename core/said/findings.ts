import type { Profile } from '../catalogue/index.js';
import {
  acceptanceOf,
  acceptanceSubject,
  isAcceptable,
  mayBeStated,
  requirementsHeld,
} from '../hazards/index.js';
import type { Evidence, Finding, Job } from '../job/index.js';
import type { PlateFact } from '../line/index.js';
import { handOverObstacles, type SettingRow, type StepRecord } from '../records/index.js';
import {
  say,
  sayDoing,
  sayFaults,
  sayFinding,
  sayRequirement,
  saySeverity,
  sayTitle,
} from '../words/index.js';
import type { Derived, SaidFinding, SaidRequirement } from './types.js';

/** A plate fact with the titles of its working in words. */
export function saidFact(fact: PlateFact): PlateFact {
  const said = <T extends { readonly title: string }>(row: T): T => ({
    ...row,
    title: sayTitle(row.title),
  });
  const { working } = fact;
  return {
    ...fact,
    working: {
      ...said(working),
      inputs: working.inputs.map(said),
      results: working.results.map(said),
    },
  };
}

/** A finding in words, with the acceptance that covers it. */
export const saidFinding = (finding: Finding, evidence: readonly Evidence[]): SaidFinding => ({
  finding,
  ...sayFinding(finding),
  mark: saySeverity(finding.severity),
  subject: acceptanceSubject(finding),
  accepted: acceptanceOf(finding, evidence) ?? null,
  acceptable: isAcceptable(finding),
});

/** What the machine must do, held against the job as built. */
export function saidRequirements(job: Job, profile: Profile): SaidRequirement[] {
  return requirementsHeld(job, profile).map(
    ({ requirement, state, does, proof, args, stated }) => ({
      id: requirement.id,
      protects: requirement.rank === 'protects',
      text: sayRequirement(requirement.id, args),
      state,
      does: state === 'met' ? '' : sayDoing(does),
      proof,
      stated: stated ?? null,
      mayBeStated: mayBeStated(requirement.id),
      simulatedOnly: requirement.simulatedOnly === true,
    }),
  );
}

/** What was found built otherwise than planned. */
export const saidDeviations = (job: Job): Derived['asBuilt'] =>
  Object.entries(job.deviations)
    .sort(([, x], [, y]) => x.ord - y.ord)
    .map(([id, { actual, why }]) => ({ id, text: sayFaults([actual], job).what, why }));

/** What stands against hand-over, in words. */
export function saidObstacles(
  job: Job,
  evidence: readonly Evidence[],
  findings: readonly SaidFinding[],
  requirements: readonly SaidRequirement[],
  {
    rows,
    live,
    dead,
  }: {
    readonly rows: readonly SettingRow[];
    readonly live: readonly StepRecord[];
    readonly dead: readonly StepRecord[];
  },
): Derived['obstacles'] {
  const open = findings.filter((f) => !f.accepted).map((f) => f.finding);
  const protects = (id: string): boolean => requirements.some((r) => r.id === id && r.protects);
  return handOverObstacles(job, open, live, rows, evidence, dead, protects).map((obstacle) => {
    const named = findings.find((f) => f.finding.key === obstacle.key);
    const args = named ? { ...obstacle.args, title: named.what } : obstacle.args;
    return { ...obstacle, text: say({ code: obstacle.code, args }) };
  });
}
