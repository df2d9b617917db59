import { shippedProfile, type Profile } from '../catalogue/index.js';
import type { Job, Scheme } from '../job/index.js';
import { adoption, planJob } from '../plan/index.js';
import { bareJob } from './jobs.js';

/** A job as most of them are: two to five wires, few settings. */
export interface SimpleJob {
  readonly name: string;
  readonly job: Job;
  readonly profile: Profile;
}

const forward: Scheme = {
  direction: 'forwardOnly',
  powerReturn: 'stayStopped',
  exposed: 'atMachine',
};
const dial: Scheme = { speed: 'dial', dialOhm: { v: 5, u: 'kΩ' } };

const wishes: readonly (readonly [name: string, family: string, scheme: Scheme])[] = [
  [
    'one selector',
    'marrowick-f',
    { ...forward, startStop: 'twoWire', startBy: 'selector', speed: 'keypad' },
  ],
  [
    'a maintained button with the dial of the device',
    'ondulet-micro',
    { ...forward, startStop: 'twoWire', startBy: 'maintainedButton', speed: 'panelDial' },
  ],
  [
    'start and stop',
    'marrowick-f',
    { ...forward, startStop: 'threeWire', stationFeed: 'separate', speed: 'keypad' },
  ],
  ['a dial only', 'marrowick-f', { ...forward, ...dial, startStop: 'keypad' }],
  [
    'two directions',
    'marrowick-f',
    {
      ...forward,
      direction: 'forwardReverse',
      startStop: 'twoWire',
      startBy: 'selector',
      directionBy: 'selector',
      speed: 'keypad',
    },
  ],
  [
    'a start contact with 0 … 10 V',
    'ondulet-n',
    { ...forward, startStop: 'controller', controllerOutput: 'relay', speed: 'voltage' },
  ],
];

/**
 * Six jobs that must stay simple, planned and adopted.
 *
 * @throws Error when one of them cannot be planned
 */
export function simpleJobs(): SimpleJob[] {
  return wishes.map(([name, family, scheme]) => {
    const profile = shippedProfile(family);
    const model = profile.models.find((m) => m.ratedA >= 5) ?? profile.models[0];
    const bare = bareJob({}, profile, model.name);
    const single = profile.supply.phases === 1;
    const supply = { phases: 1, volts: { v: 230, u: 'V' }, hz: { v: 50, u: 'Hz' } } as const;
    const small = {
      power: { v: 1.1, u: 'kW' },
      lowA: { v: 4.4, u: 'A' },
      highA: { v: 2.5, u: 'A' },
      rpm: { v: 1435, u: 'rpm' },
      link: 'delta',
    } as const;
    const plate = single
      ? { ...bare.plate, supply, motor: { ...bare.plate.motor, ...small } }
      : bare.plate;
    const job: Job = { ...bare, plate, scheme };
    const plan = planJob(job, profile);
    if (!plan.ok) throw new Error(`${name}: no plan (${plan.what})`);
    return { name, job: { ...job, adopted: adoption(plan) }, profile };
  });
}
