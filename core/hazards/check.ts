import type { Profile, Value } from '../catalogue/index.js';
import type { Evidence, EvidenceOf, Finding, Job, StatedOtherwise } from '../job/index.js';
import { plateFindings } from '../line/index.js';
import { planJob, type NoPlan, type PlanResult } from '../plan/index.js';
import { judged, type Judged } from '../requirements/index.js';
import { follow, hazardContext, type HazardContext } from './rule.js';
import { hazardRules } from './rules/index.js';
import { requirementArgs, statedOtherwise } from './rules/required-functions.js';

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
  const scheme = schemeFindings(job, profile, found, plan);
  // What the rehearsal shows takes the place of what the plates make likely.
  const trips = scheme.some((f) => f.rule === 'stop.linkTrips');
  const plates = plateFindings(job, profile).filter((f) => !trips || f.rule !== 'ramp.decelShort');
  const findings = [...plates, ...scheme];
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
  return [...(plan.ok ? plan.findings : []), ...(context ? hazardsOf(context) : [])];
}

const hazardsKept = new WeakMap<HazardContext['trials'], readonly Finding[]>();

/** What every rule finds in a job as built; worked out once. */
function hazardsOf(c: HazardContext): readonly Finding[] {
  const known = hazardsKept.get(c.trials);
  if (known) return known;
  const made = withoutEchoes(hazardRules.flatMap((rule) => follow(rule, c)));
  hazardsKept.set(c.trials, made);
  return made;
}

/** Whether a finding says that a required function is not met and that no rule has named the cause. */
const isUnmet = ({ rule }: Finding): boolean => rule.startsWith('requirement.');

/** What a job does instead of a required function, and the trial that shows it. */
export type Unmet = Pick<Judged, 'does' | 'proof'>;

/**
 * Required functions that a job as built does not have: their tests cannot be passed, whichever finding names the cause.
 *
 * @returns by the requirement's id; nothing for what a person has stated not to be required
 */
export function unmetRequirements(job: Job, profile: Profile): ReadonlyMap<string, Unmet> {
  const context = hazardContext(job, profile);
  if (!context) return new Map();
  return new Map(
    judged(context.trials, context.variants)
      .filter((j) => j.state === 'notMet' && !statedOtherwise(job, j.requirement.id))
      .map(({ requirement, does, proof }) => [requirement.id, { does, proof }]),
  );
}

/** Trials that show what a rule has named as gravely. */
const namedTrials = (findings: readonly Finding[]): ReadonlySet<string> =>
  new Set(
    findings.flatMap((f) =>
      !isUnmet(f) && f.severity === 'stop' && f.proof ? [f.proof.script] : [],
    ),
  );

/** A required function held against the job, with what its sentence names, and who states that it is not required. */
export type Held = Judged & {
  readonly args: Finding['args'];
  readonly stated: StatedOtherwise | undefined;
};

/** Every required function of a job, held against the job as built; none without an adopted plan or a wish for start and stop. */
export function requirementsHeld(job: Job, profile: Profile): Held[] {
  const c = job.scheme.startStop === undefined ? undefined : hazardContext(job, profile);
  if (!c) return [];
  return judged(c.trials, c.variants).map((j) => ({
    ...j,
    args: requirementArgs(c, j.requirement),
    stated: statedOtherwise(job, j.requirement.id),
  }));
}

/**
 * Whether a finding may be accepted with a reason: never where somebody relies on a function that is not there (that it is not
 * required can be stated where it comes from), where the wiring destroys the device, or where a frame can become live.
 */
export const isAcceptable = ({ rule }: Finding): boolean =>
  rule !== 'requirement.notMet' && !/^damage\.|^pe\.|^place\./u.test(rule);

/** What a cause explains: findings that say no more than it does. */
interface Cause {
  readonly rule: RegExp;
  readonly explains: (f: Finding) => boolean;
}

const ofRule =
  (pattern: RegExp) =>
  ({ rule }: Finding): boolean =>
    pattern.test(rule);
/** A requirement that is not met, of some part. */
const ofRequirement =
  (pattern: RegExp) =>
  (f: Finding): boolean =>
    isUnmet(f) && pattern.test(String(f.args['requirement']));

/** Causes and their consequences, the gravest first: one cause, one finding. */
const causes: readonly Cause[] = [
  // Where the supply is shorted or the device destroyed, nothing else that was simulated can be believed.
  {
    rule: /^pe\.onPhase$/u,
    explains: (f) => !/^pe\.onPhase$|^restart|^policy|^plan|^decision/u.test(f.rule),
  },
  {
    rule: /^damage\.mainsAtOutput$/u,
    explains: (f) => !/^damage\.mainsAtOutput$|^pe\.|^plan|^decision/u.test(f.rule),
  },
  {
    rule: /^damage\.mainsAtControl$/u,
    explains: (f) => !/^damage\.mainsAtControl$|^pe\.|^motor\.|^plan|^decision/u.test(f.rule),
  },
  {
    rule: /^signal\.switchAgainst$/u,
    explains: (f) => ofRule(/^damage\.|^dial\.|^supply24/u)(f) || isUnmet(f),
  },
  {
    rule: /^damage\.over/u,
    explains: (f) =>
      ofRule(/^dial\.|^reference10|^supply24|^input\.|^estop\.|^channels?/u)(f) || isUnmet(f),
  },
  {
    rule: /^motor\.leads?(?:Exchanged|Missing)$/u,
    explains: ofRequirement(/^direction\.|\.turns$/u),
  },
  {
    rule: /^supply24\.overload$/u,
    explains: (f) => isUnmet(f) || ofRule(/^load\.underVoltage$|^input\.|^dial\./u)(f),
  },
  {
    rule: /^load\.underVoltage$/u,
    explains: (f) => isUnmet(f) || ofRule(/^dial\.|^input\./u)(f),
  },
  { rule: /^dial\./u, explains: ofRequirement(/^speed/u) },
  {
    rule: /^signal\.(?:stageUnfed|noCommon)$/u,
    explains: isUnmet,
  },
  { rule: /^controller\.map$/u, explains: (f) => isUnmet(f) || ofRule(/^input\./u)(f) },
  {
    rule: /^estop\.channelStays$/u,
    explains: (f) => ofRule(/^estop\.undervoltage$/u)(f) || ofRequirement(/^estop\.channel\./u)(f),
  },
  {
    rule: /^pe\.switched$/u,
    explains: (f) =>
      ofRule(/^pe\.open$/u)(f) || ofRequirement(/^direction|\.turns$|^brake\.opens|^lamp/u)(f),
  },
  { rule: /^coil\.neutralSwitched$/u, explains: ofRule(/^circuit\./u) },
];

/** Findings without what another of them explains; a requirement says no more where a rule has named the same trial as gravely. */
function withoutEchoes(findings: readonly Finding[]): Finding[] {
  let left = [...findings];
  for (const { rule, explains } of causes)
    if (left.some((f) => rule.test(f.rule)))
      left = left.filter((f) => rule.test(f.rule) || !explains(f));
  const named = namedTrials(left);
  left = left.filter((f) => !isUnmet(f) || !named.has(f.proof?.script ?? ''));
  // A stop that does nothing says all that its input would; a start that does nothing is explained by its input.
  const devicesOf = (rule: string) =>
    new Set(left.filter((f) => f.rule === rule).map((f) => f.args['device']));
  const stopless = devicesOf('requirement.notMet');
  left = left.filter((f) => f.rule !== 'input.doesNotSwitch' || !stopless.has(f.args['device']));
  const dead = devicesOf('input.doesNotSwitch');
  return left.filter((f) => f.rule !== 'requirement.otherMotion' || !dead.has(f.args['device']));
}

/** Subject under which the acceptance of a finding is kept. */
export const acceptanceSubject = ({ key, basis }: Finding): string =>
  `${key}#${basis.slice(0, 16)}`;

/** The acceptance that covers a finding: of the same key, and made while everything it rests on was the same. */
export function acceptanceOf(
  finding: Finding,
  evidence: readonly Evidence[],
): EvidenceOf<'acceptance'> | undefined {
  if (!isAcceptable(finding)) return undefined;
  const subject = acceptanceSubject(finding);
  return evidence.findLast(
    (e): e is EvidenceOf<'acceptance'> => e.kind === 'acceptance' && e.subject === subject,
  );
}
