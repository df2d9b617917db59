import { modelOf, planningGaps, type Profile } from '../../catalogue/index.js';
import { sortedEntries, type Job } from '../../job/index.js';
import { stepContext, tagOf, type StepContext } from '../context.js';

/** Something that can make a part of the machine live, and what of it. */
export interface IsolationSource {
  readonly tag: string;
  /** The supply, a supply of the control ahead of it, another's supply, the load that can turn the motor. */
  readonly what: 'supply' | 'control' | 'foreign' | 'load';
}

/** Breakers that are opened with the disconnecting device, since nothing of it goes through that. */
const tappedAhead = ({ arrangement: a }: StepContext): readonly string[] =>
  a.isolator ? [] : a.ownBreakers;

/** Supplies that come from elsewhere and stay on with everything here open. */
const foreign = ({ job }: StepContext): string[] =>
  sortedEntries(job.adopted?.devices ?? {}).flatMap(([id, d]) =>
    d.kind === 'loopSupply' ? [id] : [],
  );

/** Tags of what is opened and locked besides the disconnecting device. */
export const otherSources = (c: StepContext): string[] =>
  [...foreign(c), ...tappedAhead(c)].map((id) => tagOf(c, id));

/**
 * Every source that has to be off and locked before a job is dead, by its own wiring.
 *
 * @returns nothing without an adopted plan, or for a device that cannot be planned
 * @example isolationSources(job, profile).map((s) => s.tag) // ['QB1']
 */
export function isolationSources(job: Job, profile: Profile): IsolationSource[] {
  const can = job.adopted && modelOf(profile, job.profile.model) && !planningGaps(profile).length;
  if (!can) return [];
  const c = stepContext(job, profile);
  const { isolator, mainBreaker } = c.arrangement;
  return [
    { tag: tagOf(c, isolator ?? mainBreaker), what: 'supply' },
    ...tappedAhead(c).map((id) => ({ tag: tagOf(c, id), what: 'control' }) as const),
    ...foreign(c).map((id) => ({ tag: tagOf(c, id), what: 'foreign' }) as const),
    ...(job.plate.load.overhauls
      ? [{ tag: tagOf(c, c.installation.shaft.id), what: 'load' } as const]
      : []),
  ];
}
