import type { Profile } from '../catalogue/index.js';
import type { Evidence, Job } from '../job/index.js';
import type { DecimalMark } from '../units/index.js';
import { derivedOf } from './derive.js';
import { saidNights } from './night.js';

/** What a record is told of beside its job. */
export interface RecordPlace {
  /** Name of the site; empty where it is not known. */
  readonly site: string;
  readonly decimal: DecimalMark;
  /** Roles that must sign; left out, the usual ones. */
  readonly roles?: readonly string[];
}

/**
 * Everything that the record of a job is printed from, reckoned in one go.
 *
 * @example recordSections(recordInputOf(job, profile, evidence, { site: '', decimal: '.' })).length
 */
export const recordInputOf = (
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
  place: RecordPlace,
) => ({
  job,
  device: profile.title,
  derived: derivedOf(job, profile, evidence),
  evidence,
  night: saidNights(job, profile),
  ...place,
});
