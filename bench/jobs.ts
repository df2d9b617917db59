import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedProfile } from '@tactron/core/catalogue';
import type { Job } from '@tactron/core/job';
import { adoption, planJob } from '@tactron/core/plan';

export const demoJob = (name: string): Job =>
  (
    JSON.parse(readFileSync(join(process.cwd(), `demo/${name}.tactron.json`), 'utf8')) as {
      job: Job;
    }
  ).job;

export const profile = shippedProfile('marrowick-f');
const auger = demoJob('fm-auger');
/** A plain two-wire station with a dial: what the network of many contacts grows from, and what SPICE is given too. */
export const dialJob = planned({
  ...auger,
  adopted: undefined,
  scheme: {
    startStop: 'twoWire',
    startBy: 'levelContact',
    direction: 'forwardOnly',
    speed: 'dial',
    accelS: 4,
    decelS: 3,
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
  },
});
export const drum = demoJob('fm-drum-1');
export const drumProfile = shippedProfile('ondulet-n');

function planned(bare: Job): Job {
  const plan = planJob(bare, profile);
  if (!plan.ok) throw new Error(`no plan: ${plan.what}`);
  return { ...bare, adopted: adoption(plan) };
}

/** The drum with more stations, until its control circuit has about sixty wires. */
export function drumOf(stations: number): Job {
  const bare: Job = {
    ...drum,
    adopted: undefined,
    scheme: { ...drum.scheme, stations, interlocks: ['guard', 'level'], lamps: ['running'] },
  };
  const plan = planJob(bare, drumProfile);
  if (!plan.ok) throw new Error(`no plan: ${plan.what}`);
  return { ...bare, adopted: adoption(plan) };
}
