import type { Job } from '@tactron/core/job';

/**
 * Unit in which a job gives its lengths: all of them are told in it.
 *
 * @example lengthUnitOf(job) // 'ft' where the motor cable was typed in feet
 */
export function lengthUnitOf(job: Pick<Job, 'plate' | 'scheme'> | null | undefined): 'm' | 'ft' {
  const { plate, scheme } = job ?? {};
  return plate?.cable.length?.u === 'ft' || scheme?.stationLength?.u === 'ft' ? 'ft' : 'm';
}
