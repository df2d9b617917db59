import { policyValue, type Profile, type Value } from '../catalogue/index.js';
import { findingKey, hashOf, type Finding, type Job, type Rank } from '../job/index.js';
import type { Installation, InstalledDevice } from '../installation/index.js';
import type { Arrangement, OperationId } from '../scheme/index.js';
import { trialsOf, type Policies, type Run, type Trials } from '../trials/index.js';

/** What every rule may look at. */
export interface HazardContext {
  readonly job: Job;
  readonly profile: Profile;
  readonly trials: Trials;
  readonly arrangement: Arrangement;
  readonly installation: Installation;
  readonly device: InstalledDevice;
  /** Every way in which the policies that the profile does not know may turn out. */
  readonly variants: readonly Policies[];
  /** Who can be at the machine; a person where nobody said. */
  readonly exposed: 'nobody' | 'behindGuard' | 'atMachine';
}

/** What a rule says of one thing it found. */
export interface Told {
  /** What of the job it is about, so that two findings of one rule are apart. */
  readonly subject?: string;
  readonly severity: Finding['severity'];
  readonly where: Finding['where'];
  readonly args?: Finding['args'];
  /** Standard, formula or simulation it rests on. */
  readonly source: string;
  /** What it depends on beside its arguments. */
  readonly rests?: unknown;
  readonly proof?: Finding['proof'];
}

/** Makes a finding of the rule that is running. */
export type Find = (rule: string, told: Told) => Finding;

/** A rule: what it can find, with what is at stake, and the stage where it is put right. */
export interface HazardRule {
  readonly finds: Readonly<Record<string, Rank>>;
  readonly stage: Finding['stage'];
  /** Finds nothing where it does not apply. */
  look(c: HazardContext, find: Find): Finding[];
}

/** Runs a rule. */
export function follow(rule: HazardRule, c: HazardContext): Finding[] {
  return rule.look(c, (name, told) => {
    const { subject = '', severity, where, args = {}, source, rests = [], proof } = told;
    return {
      key: findingKey(name, subject),
      rule: name,
      severity,
      rank: rule.finds[name],
      stage: rule.stage,
      where,
      args,
      source,
      basis: hashOf([name, subject, severity, args, rests]),
      ...(proof ? { proof } : {}),
    };
  });
}

/** Policies that decide whether the motor moves by itself, and the ways each can turn out. */
const ways: Readonly<Record<string, readonly Value[]>> = {
  onPowerReturn: ['needFreshEdge', 'followLevel'],
  onEnableReturn: ['needFreshEdge', 'followLevel'],
  onFaultReset: ['needFreshEdge', 'followLevel'],
  onTakeover: ['needFreshEdge', 'followLevel'],
  onStartHeld: ['needFreshEdge', 'followLevel'],
  startEdgeWithStopReturn: ['lost', 'accepted'],
  onBothDirections: ['stop', 'fault', 'firstWins'],
  terminalStopUnderKeypad: ['acts', 'ignored'],
};

const MOST_VARIANTS = 32;

function variantsOf(profile: Profile): Policies[] {
  let sets: Record<string, Value>[] = [{}];
  for (const [name, values] of Object.entries(ways)) {
    if (profile.policies[name] !== 'unknown' || sets.length * values.length > MOST_VARIANTS)
      continue;
    sets = sets.flatMap((set) => values.map((value) => ({ ...set, [name]: value })));
  }
  return sets;
}

/** Builds the context; undefined until a plan is adopted on a model that the profile has. */
export function hazardContext(job: Job, profile: Profile): HazardContext | undefined {
  if (!job.adopted || !profile.models.some((m) => m.name === job.profile.model)) return undefined;
  const trials = trialsOf(job, profile);
  const { arrangement, installation } = trials;
  return {
    job,
    profile,
    trials,
    arrangement,
    installation,
    device: installation.device,
    variants: variantsOf(profile),
    exposed: job.scheme.exposed ?? 'atMachine',
  };
}

/**
 * The first way in which a trial ends in what is asked about.
 *
 * @returns the run that shows it; undefined when none does, or when the station cannot do the trial
 */
export function firstThat(
  { trials, variants }: HazardContext,
  trial: string,
  shows: (run: Run) => boolean,
): Run | undefined {
  if (!trials.has(trial)) return undefined;
  for (const policies of variants) {
    const run = trials.run(trial, policies);
    if (shows(run)) return run;
  }
  return undefined;
}

/** Meaning of a policy under the settings in force. */
export const policyIn = ({ profile, trials }: HazardContext, name: string): Value | undefined =>
  policyValue(profile, trials.panel.settings, name);

/** Tag of a part; its id where it is not there. */
export const tagOf = ({ job }: HazardContext, id: string | undefined): string =>
  job.adopted?.devices[id ?? '']?.tag ?? id ?? '';

/** Tag of the part that an operation works. */
export const tagOfOperation = (c: HazardContext, operation: OperationId | undefined): string =>
  tagOf(c, partOf(c, operation));

/** Id of the part that an operation works. */
export const partOf = (
  { arrangement }: HazardContext,
  operation: OperationId | undefined,
): string | undefined => operation && arrangement.operations[operation]?.device;

export const atPart = (id: string | undefined): Finding['where'] =>
  id ? [{ kind: 'device', id }] : [];

/** The device itself as the place of a finding. */
export const atDevice = ({ device }: HazardContext): Finding['where'] => atPart(device.id);

/** A terminal of the device as the place of a finding. */
export const atTerminal = ({ device }: HazardContext, terminal: string): Finding['where'] => [
  { kind: 'landing', id: `${device.id}:${terminal}` },
];
