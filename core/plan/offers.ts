import { shippedProfile, shippedProfiles, type Model, type Profile } from '../catalogue/index.js';
import { hashOf, type Job, type Scheme } from '../job/index.js';
import { plateNumbers } from '../line/index.js';
import { planJob } from './plan.js';

/** A family that can do what is wished, with its smallest model that carries the motor. */
export interface Offer {
  readonly family: string;
  readonly title: string;
  readonly model: string;
}

const fits = ({ supply }: Profile, { ratedA }: Model, amps: number, phases: number): boolean =>
  ratedA >= amps && (supply.phases === phases || (supply.phases === 1 && phases === 3));

/** Wishes that only a soft starter has: another device is asked without them. */
const starterWishes = [
  'lineContactor',
  'starterConnection',
  'startKind',
  'beginPct',
  'limitPct',
  'kick',
  'tripClass',
  'endTorquePct',
  'inhibitS',
  'reversePauseS',
  'thermistor',
  'guardLockS',
] as const satisfies readonly (keyof Scheme)[];

/** The wishes without some of them. */
export const lessWishes = (scheme: Scheme, without: readonly (keyof Scheme)[]): Scheme =>
  Object.fromEntries(
    Object.entries(scheme).filter(([wish]) => !without.some((own) => own === wish)),
  );

/** The wishes without those that only a soft starter has. */
export const withoutStarter = (scheme: Scheme): Scheme => lessWishes(scheme, starterWishes);

/**
 * Families of another kind that plan these very wishes on this motor: told where the device of the job cannot do them.
 *
 * @returns the smallest model of each; empty where none can
 * @example offersFor(crusherWithDial, pendriftS)[0].model // 'T75'
 */
export function offersFor(job: Job, profile: Profile): Offer[] {
  const { phases = 3 } = job.plate.supply;
  return Object.keys(shippedProfiles).flatMap((family): Offer[] => {
    const other = shippedProfile(family);
    if (other.kind === profile.kind) return [];
    const amps = plateNumbers(job.plate, other).rated?.amps ?? 0;
    const model = [...other.models]
      .sort((x, y) => x.ratedA - y.ratedA)
      .find((m) => fits(other, m, amps, phases));
    if (!model) return [];
    const { adopted: _adopted, ...rest } = job;
    const tried: Job = {
      ...rest,
      scheme: withoutStarter(job.scheme),
      decisions: { ...job.decisions, pins: {}, wires: {}, devices: {} },
      profile: { family, model: model.name, version: String(other.version), sha256: hashOf(other) },
    };
    return planJob(tried, other).ok ? [{ family, title: other.title, model: model.name }] : [];
  });
}
