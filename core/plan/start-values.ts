import {
  changesSpeed,
  modelOf,
  roleSetting,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import type { Job, Scheme } from '../job/index.js';
import { fedMachine, plateNumbers } from '../line/index.js';
import { tripClasses, type TripClass } from '../motor/index.js';
import { recommendStart, type FedMachine, type Recommended } from '../starter/index.js';

/** The machine a soft starter of a job feeds, by plates and the amps its plate asks to be set. */
export function machineFor(job: Job, profile: Profile): FedMachine | undefined {
  const model = modelOf(profile, job.profile.model);
  if (!model || changesSpeed(profile)) return undefined;
  const fed = fedMachine(job, profile, model);
  const motorA = plateNumbers(job.plate, profile).rated?.amps ?? model.ratedA;
  return { ...fed, motorA, deviceA: model.ratedA };
}

/** Ends of the setting that plays a role; wide where it is not a number. */
function endsOf(profile: Profile, role: string, wide: readonly [number, number]): [number, number] {
  const { min = wide[0], max = wide[1] } = profile.settings[roleSetting(profile, role) ?? ''] ?? {};
  return [min, max];
}

const kept = new WeakMap<Profile, { readonly of: string; readonly made: Recommended }>();

/**
 * The start that a soft starter is recommended for a job, as far as its plates tell; the last one is kept.
 *
 * @returns undefined for a device that changes the speed
 */
export function recommendedStart(job: Job, profile: Profile): Recommended | undefined {
  const machine = machineFor(job, profile);
  if (!machine) return undefined;
  const of = JSON.stringify([machine]);
  const known = kept.get(profile);
  if (known?.of === of) return known.made;
  const policy = profile.roles['tripClass'];
  const values = typeof policy === 'object' && 'values' in policy ? policy.values : {};
  // 10A is for contactors beside a fuse: its image is that of class 10.
  const classes = tripClasses.filter(
    (c) => c !== '10A' && Object.values(values as object).includes(c),
  );
  const made = recommendStart(machine, {
    limits: roleSetting(profile, 'limitPct') !== undefined,
    classes: classes.length > 0 ? classes : (['10'] as TripClass[]),
    beginPct: endsOf(profile, 'beginPct', [10, 100]),
    limitPct: endsOf(profile, 'limitPct', [100, 800]),
  });
  kept.set(profile, { of, made });
  return made;
}

/** Wishes that a recommendation stands in for. */
const wished: readonly (readonly [role: keyof Recommended & string, wish: keyof Scheme])[] = [
  ['beginPct', 'beginPct'],
  ['limitPct', 'limitPct'],
  ['rampS', 'accelS'],
  ['tripClass', 'tripClass'],
];

/** What is planned for the start where nobody wished otherwise, by role. */
export function startMeanings(
  job: Job,
  profile: Profile,
): readonly { readonly role: string; readonly value: Value }[] {
  const made = recommendedStart(job, profile);
  if (!made) return [];
  return wished.flatMap(([role, wish]) => {
    const value = made[role];
    return job.scheme[wish] === undefined && value !== undefined ? [{ role, value }] : [];
  });
}
