import type { Model, Profile, Value } from '../../catalogue/index.js';
import { longestTravelMs } from '../../drive/index.js';
import { findingKey, hashOf, type Act, type Finding, type Job } from '../../job/index.js';
import {
  installAtSpeed,
  type Installation,
  type InstalledDrive,
} from '../../installation/index.js';
import { arrangeFor } from '../../plan/index.js';
import { rehearse, signalAt, type Trace } from '../../rehearsal/index.js';
import type { Arrangement } from '../../scheme/index.js';

/** What every rule may look at. */
export interface HazardContext {
  readonly job: Job;
  readonly profile: Profile;
  readonly model: Model;
  readonly arrangement: Arrangement;
  readonly installation: Installation;
  readonly drive: InstalledDrive;
  /** The job once for every way in which a policy the profile does not know may turn out. */
  readonly variants: readonly Variant[];
  /** Who can be at the machine; a person where nobody said. */
  readonly exposed: 'nobody' | 'behindGuard' | 'atMachine';
}

export interface Variant {
  readonly policies: Readonly<Record<string, Value>>;
  readonly installation: Installation;
}

export type Rule = (c: HazardContext) => Finding[];

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

function variantsOf(job: Job, profile: Profile): Variant[] {
  let sets: Record<string, Value>[] = [{}];
  for (const [name, values] of Object.entries(ways)) {
    if (profile.policies[name] !== 'unknown' || sets.length * values.length > MOST_VARIANTS)
      continue;
    sets = sets.flatMap((set) => values.map((value) => ({ ...set, [name]: value })));
  }
  return sets.map((policies) => ({
    policies,
    installation: installAtSpeed(job, profile, 1, policies),
  }));
}

/** Builds the context; undefined until a plan is adopted. */
export function hazardContext(job: Job, profile: Profile): HazardContext | undefined {
  const model = profile.models.find((m) => m.name === job.profile.model);
  if (!job.adopted || !model) return undefined;
  const installation = installAtSpeed(job, profile, 1);
  const drive = installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
  const exposed = job.scheme.exposed ?? 'atMachine';
  return (
    drive && {
      job,
      profile,
      model,
      arrangement: arrangeFor(job, profile),
      installation,
      drive,
      variants: variantsOf(job, profile),
      exposed,
    }
  );
}

/** A finding with its key and with what it rests on. */
export function make(
  rule: string,
  subject: string,
  severity: Finding['severity'],
  where: Finding['where'],
  args: Finding['args'],
  source: string,
  more: unknown = [],
  proof?: Finding['proof'],
): Finding {
  return {
    key: findingKey(rule, subject),
    rule,
    severity,
    where,
    args,
    source,
    basis: hashOf([rule, subject, severity, args, more]),
    proof,
  };
}

export const tagOf = (job: Job, device: string | undefined): string =>
  job.adopted?.devices[device ?? '']?.tag ?? device ?? '';

/** Tag of the device that an operation works. */
export const tagOfOperation = (
  { job, arrangement }: HazardContext,
  operation: string | undefined,
): string => tagOf(job, arrangement.operations[operation ?? '']?.device);

export const deviceOf = (device: string | undefined): Finding['where'] =>
  device ? [{ kind: 'device', id: device }] : [];

export const hzAt = (trace: Trace, ms: number): number => signalAt(trace, 'drive.hz', ms * 1000);
export const runs = (trace: Trace, ms: number): boolean => Math.abs(hzAt(trace, ms)) > 0;

/** Longest time between standstill and full speed under these ramps, ms. */
export function travelMs(drive: InstalledDrive): number {
  return Math.min(600_000, longestTravelMs(drive.control)) + 1500;
}

/**
 * The first variant in which a script ends in what is asked about.
 *
 * @returns the trace that shows it, or undefined when no variant does
 */
export function firstThat(
  c: HazardContext,
  acts: readonly Act[],
  endMs: number,
  shows: (trace: Trace) => boolean,
): { trace: Trace; variant: Variant } | undefined {
  for (const variant of c.variants) {
    const trace = rehearse(variant.installation, acts, endMs);
    if (shows(trace)) return { trace, variant };
  }
  return undefined;
}
