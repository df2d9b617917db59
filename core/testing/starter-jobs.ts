import { shippedProfile } from '../catalogue/index.js';
import type { Job, Scheme } from '../job/index.js';
import { adoption, planJob } from '../plan/index.js';
import { bareJob } from './jobs.js';

/** The soft starter with a keypad. */
export const menuStarter = shippedProfile('pendrift-s');

/** Start and stop by buttons, a contactor by a relay of the device. */
export const starterWishes: Scheme = {
  startStop: 'threeWire',
  stationFeed: 'separate',
  direction: 'forwardOnly',
  powerReturn: 'stayStopped',
  exposed: 'atMachine',
  stopMode: 'coast',
  lineContactor: 'byRelay',
};

/** The auger on the soft starter with a keypad, with some wishes and its load otherwise; nothing is planned yet. */
export function starterJob(
  scheme: Partial<Scheme> = {},
  load: Partial<Job['plate']['load']> = {},
): Job {
  const bare = bareJob({}, menuStarter, 'S15');
  const plate = { ...bare.plate, load: { ...bare.plate.load, ...load } };
  return { ...bare, plate, scheme: { ...starterWishes, ...scheme } };
}

/** A job with its plan adopted. @throws Error where there is none */
export function withPlan(job: Job, profile = menuStarter): Job {
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(`${plan.code} ${plan.what}`);
  return { ...job, adopted: adoption(plan) };
}
