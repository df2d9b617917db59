import { shippedProfile, shippedProfiles, type Profile } from '../catalogue/index.js';
import { hashOf, type Job, type Scheme } from '../job/index.js';
import { plateNumbers } from '../line/index.js';
import { lessWishes, withoutStarter } from './offers.js';
import { planJob, type NoPlan } from './plan.js';

/** What a model does not do: it carries too little, or the supply is not its own. */
export interface ModelFit {
  readonly model: string;
  readonly ratedA: number;
  readonly carries: boolean;
}

/** Whether a family can do what a job wishes, and which of its models carries the motor. */
export interface FamilyFit {
  readonly family: string;
  readonly title: string;
  readonly kind: Profile['kind'];
  /** `unknown` while nothing is wished yet. */
  readonly wishes: 'fits' | 'without' | 'cannot' | 'unknown';
  /** Wishes that would have to go. */
  readonly without: readonly (keyof Scheme)[];
  /** Why it cannot. */
  readonly why: NoPlan | undefined;
  /** The supply of the plate is one it is made for; undefined while the plate does not say. */
  readonly supply: boolean | undefined;
  /** Supply that it is made for. */
  readonly madeFor: Pick<Profile['supply'], 'phases' | 'volts'>;
  /** Current of the motor as it is linked, A; undefined while the plate does not say. */
  readonly amps: number | undefined;
  readonly models: readonly ModelFit[];
  /** Smallest model that carries the motor; undefined where none does, or nothing is known of the motor. */
  readonly smallest: string | undefined;
}

/** Wishes that are never taken back: nothing is left without them, or somebody relies on them. */
const needed: readonly (keyof Scheme)[] = [
  'startStop',
  'direction',
  'estop',
  'estopInFeed',
  'interlocks',
  'footStop',
  'powerReturn',
];
/** Wishes taken back, one after the other, before a family is said not to fit. */
const MOST_TAKEN = 3;

/**
 * Every shipped family and model against a job: its supply, its motor, its wishes. A family fits where it plans these very
 * wishes; without some where it plans the others.
 *
 * @example familyFits(drum).find((f) => f.family === 'marrowick-f')?.wishes // 'without'
 */
export function familyFits(job: Job): FamilyFit[] {
  return Object.keys(shippedProfiles).map((family) => familyFit(job, family));
}

function familyFit(job: Job, family: string): FamilyFit {
  const profile = shippedProfile(family);
  const n = plateNumbers(job.plate, profile);
  const amps = n.rated?.amps;
  const models = [...profile.models]
    .sort((x, y) => x.ratedA - y.ratedA)
    .map(({ name, ratedA }) => ({
      model: name,
      ratedA,
      carries: amps === undefined || ratedA >= amps,
    }));
  const smallest = models.find((m) => m.carries)?.model;
  return {
    family,
    title: profile.title,
    kind: profile.kind,
    supply: suits(profile, job.plate.supply.phases, n.supplyV),
    madeFor: profile.supply,
    amps,
    models,
    smallest: amps === undefined ? undefined : smallest,
    ...wished(job, profile, family, smallest ?? models[0].model),
  };
}

/** A single-phase device is fed from a three-phase supply too, by two of its conductors. */
function suits(
  { supply }: Profile,
  phases: number | undefined,
  volts: number | undefined,
): boolean | undefined {
  if (phases === undefined || volts === undefined) return undefined;
  const [least, most] = supply.volts;
  return (supply.phases === phases || supply.phases === 1) && volts >= least && volts <= most;
}

function wished(
  job: Job,
  profile: Profile,
  family: string,
  model: string,
): Pick<FamilyFit, 'wishes' | 'without' | 'why'> {
  if (job.scheme.startStop === undefined) return { wishes: 'unknown', without: [], why: undefined };
  const { adopted: _adopted, ...rest } = job;
  const base: Job = {
    ...rest,
    scheme: profile.kind === 'starter' ? job.scheme : withoutStarter(job.scheme),
    decisions: { ...job.decisions, pins: {}, wires: {}, devices: {}, settings: {} },
    profile: { family, model, version: String(profile.version), sha256: hashOf(profile) },
  };
  const plans = (without: readonly (keyof Scheme)[]): ReturnType<typeof planJob> =>
    planJob({ ...base, scheme: lessWishes(base.scheme, without) }, profile);
  const without: (keyof Scheme)[] = [];
  let plan = plans(without);
  const first = plan.ok ? undefined : plan;
  while (!plan.ok) {
    const taken = (plan.wishes as readonly (keyof Scheme)[] | undefined)?.find(
      (w) => base.scheme[w] !== undefined && !needed.includes(w) && !without.includes(w),
    );
    if (taken === undefined || without.length >= MOST_TAKEN)
      return { wishes: 'cannot', without: [], why: first };
    without.push(taken);
    plan = plans(without);
  }
  // A conflict names wishes of which one is enough: what can come back stays wished.
  const least = without.reduce((gone, w) => {
    const fewer = gone.filter((x) => x !== w);
    return plans(fewer).ok ? fewer : gone;
  }, without);
  return { wishes: least.length > 0 ? 'without' : 'fits', without: least, why: undefined };
}

/**
 * What a family comes to on a job: it fits only with its own supply, with a model that carries the motor, and with the wishes.
 *
 * @example verdictOfFit({ ...fit, supply: false }) // 'supply'
 */
export function verdictOfFit({
  supply,
  amps,
  smallest,
  wishes,
}: Pick<FamilyFit, 'supply' | 'amps' | 'smallest' | 'wishes'>):
  'supply' | 'current' | FamilyFit['wishes'] {
  if (supply === false) return 'supply';
  if (amps !== undefined && smallest === undefined) return 'current';
  return wishes;
}
