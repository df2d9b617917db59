import { shippedProfile, type Profile } from '../catalogue/index.js';
import { emptyJob, hashOf, type Fault, type Job, type Scheme } from '../job/index.js';
import { adoption, planJob, type PlanResult } from '../plan/index.js';

export const marrowick = (): Profile => shippedProfile('marrowick-f');

const auger: Job['plate'] = {
  motor: {
    power: { v: 2.2, u: 'kW' }, connection: 'deltaStar', lowV: { v: 230, u: 'V' }, highV: { v: 400, u: 'V' }, lowA: { v: 7.8, u: 'A' }, highA: { v: 4.5, u: 'A' },
    hz: { v: 50, u: 'Hz' }, rpm: { v: 1440, u: 'rpm' }, powerFactor: 0.81, efficiency: 0.87, link: 'star', insulation: 'inverterDuty', inertia: { v: 0.0092, u: 'kg·m²' },
  },
  supply: { phases: 3, volts: { v: 400, u: 'V' }, hz: { v: 50, u: 'Hz' } },
  load: { kind: 'constant', torquePct: 75, gearRatio: 9.6, inertia: { v: 0.85, u: 'kg·m²' } },
  cable: { length: { v: 48, u: 'm' }, size: { mm2: 1.5 } },
}; // prettier-ignore

const wishes: Scheme = {
  startStop: 'twoWire', startBy: 'selector', direction: 'forwardReverse', directionBy: 'selector', speed: 'dial', dialOhm: { v: 5, u: 'kΩ' },
  maxHz: 50, accelS: 5, decelS: 4, powerReturn: 'stayStopped', exposed: 'atMachine', stationLength: { v: 10, u: 'm' },
}; // prettier-ignore

/** The auger's plates with any wishes, not planned yet. */
export function bareJob(scheme: Partial<Scheme> = {}, profile = marrowick(), model = 'F02'): Job {
  const named = {
    id: '11111111-1111-4111-8111-111111111111',
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: 'auger',
    practice: 'IEC' as const,
  };
  const job = emptyJob({
    ...named,
    profile: { family: profile.family, model, version: '1', sha256: hashOf(profile) },
  });
  return { ...job, plate: structuredClone(auger), scheme: { ...wishes, ...scheme } };
}

/** Plans a job and adopts the plan. @throws when there is none */
export function adopted(job: Job, profile = marrowick()): Job {
  const plan = planned(job, profile);
  return { ...job, adopted: adoption(plan) };
}

export function planned(job: Job, profile = marrowick()): PlanResult {
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(`no plan: ${plan.why} ${plan.path} ${plan.what}`);
  return plan;
}

/** The same job with a load whose mass gives much back when it is slowed down; with a braking resistor where its ohms are given. */
export function heavyLoad(job: Job, resistorOhm?: number): Job {
  const { plate } = job;
  const load: Job['plate']['load'] = { ...plate.load, inertia: { v: 22, u: 'kg·m²' } };
  if (resistorOhm === undefined) return { ...job, plate: { ...plate, load } };
  const line: Job['plate']['line'] = {
    ...plate.line,
    resistor: {
      ohm: { v: resistorOhm, u: 'Ω' },
      power: { v: 2, u: 'kW' },
      thermalContact: true,
    },
  };
  return { ...job, plate: { ...plate, load, line } };
}

/** A job of which a panel was found to be built otherwise. */
export const builtWith = (job: Job, ...faults: Fault[]): Job => ({
  ...job,
  deviations: Object.fromEntries(
    faults.map((actual, i) => [
      `d${i}`,
      { ord: i, where: { kind: 'device', id: 'x' }, actual, why: 'found' },
    ]),
  ) as Job['deviations'],
});
