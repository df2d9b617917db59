import { changesSpeed, shippedProfile, shippedProfiles, type Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { adoption, planJob } from '../plan/index.js';
import { arrangementsFor } from '../scheme/index.js';
import { bareJob } from './jobs.js';

/** A job of one arrangement on one family, built to its plan. */
export interface BuiltCase {
  readonly name: string;
  readonly job: Job;
  readonly profile: Profile;
}

/** The supply of the plates, or of the workshop for a device that takes one phase. */
const supplyFor = (profile: Profile, { plate }: Job): Job['plate']['supply'] =>
  profile.supply.phases === 1
    ? { phases: 1, volts: { v: 230, u: 'V' }, hz: { v: 50, u: 'Hz' } }
    : plate.supply;

/** Every shipped arrangement on every family that can carry it, planned and adopted. */
export function everyArrangement(): BuiltCase[] {
  return Object.keys(shippedProfiles).flatMap((family) => {
    const profile = shippedProfile(family);
    const model = profile.models.find((m) => m.ratedA >= 5) ?? profile.models[0];
    return arrangementsFor(changesSpeed(profile)).flatMap(({ id, scheme }): BuiltCase[] => {
      const bare = bareJob({}, profile, model.name);
      const job = { ...bare, plate: { ...bare.plate, supply: supplyFor(profile, bare) }, scheme };
      const plan = planJob(job, profile);
      return plan.ok
        ? [{ name: `${family} ${id}`, job: { ...job, adopted: adoption(plan) }, profile }]
        : [];
    });
  });
}
