import * as v from 'valibot';
import {
  profileSchema,
  shippedProfile,
  shippedProfiles,
  type Profile,
} from '@tactron/core/catalogue';
import { pathIssues, readEnvelope, type Evidence, type Job } from '@tactron/core/job';
import { adoption, planJob } from '@tactron/core/plan';
import { sayNoPlan } from '@tactron/core/words';
import { BadInput } from './bad-input.js';

export interface JobInput {
  readonly job: Job;
  readonly profile: Profile;
  readonly evidence: readonly Evidence[];
  /** Name of its site; empty where the file tells none. */
  readonly site: string;
}

/** A job from a file's data, with the profile it is pinned to: the file's own by hash, otherwise the shipped family's. */
export function jobInput(data: unknown): JobInput {
  const read = readEnvelope(data);
  if (!read.ok) throw new BadInput(read.issues[0].path, read.issues[0].message);
  const { job, profiles, evidence, site } = read.envelope;
  const carried = profiles[job.profile.sha256];
  if (!carried && !(job.profile.family in shippedProfiles))
    throw new BadInput('profile.family', `there is no profile "${job.profile.family}"`);
  return {
    job,
    evidence,
    site: site?.name ?? '',
    profile: carried
      ? carriedProfile(carried, job.profile.sha256)
      : shippedProfile(job.profile.family),
  };
}

function carriedProfile(data: unknown, sha: string): Profile {
  const checked = v.safeParse(profileSchema, data);
  if (checked.success) return checked.output;
  const issue = pathIssues(checked.issues)[0];
  throw new BadInput(`profiles.${sha}.${issue.path}`, issue.message);
}

/** The job with a plan: its own, or the one just proposed where none is adopted. */
export function plannedJob({ job, profile }: JobInput): Job {
  if (job.adopted) return job;
  const plan = planJob(job, profile);
  if (!plan.ok) throw new BadInput(plan.path, `no plan: ${sayNoPlan(plan)}`);
  return { ...job, adopted: adoption(plan) };
}
