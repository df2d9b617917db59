import type { Job } from '../job/index.js';
import type { Arrangement } from '../scheme/index.js';
import type { Requirement } from './requirement.js';

/** A trial, and the same with each contact of a relay before its others. */
export const withLags = (ids: readonly string[], name: string): string[] => [
  name,
  ...ids.filter((id) => id.startsWith(`${name}.relay.`)),
];

/** Power that returns with the run still given: as wished; unasked for it starts nothing. */
export function powerReturn(a: Arrangement, job: Job, ids: readonly string[]): Requirement[] {
  if (!a.starts.forward) return [];
  const restarts = job.scheme.powerReturn === 'restart';
  return [
    {
      id: 'power.return',
      rank: restarts ? 'moves' : 'protects',
      wish: ['powerReturn'],
      operation: a.starts.forward,
      looks: withLags(ids, 'power.return').map((trial) => ({
        trial,
        mark: 'powerReturns',
        after: 'start',
      })),
      must: { kind: restarts ? 'restarts' : 'staysStopped' },
    },
  ];
}

/** Power alone starts nothing: with every run contact open it only makes ready. */
export const powerOn = (): Requirement[] => [
  {
    id: 'power.on',
    rank: 'protects',
    wish: ['startStop'],
    operation: undefined,
    looks: [{ trial: 'supply.on', mark: 'ready' }],
    must: { kind: 'staysStopped' },
  },
];

/** The button of a line contactor takes the power off. */
export function powerOff({ power, contactor }: Arrangement): Requirement[] {
  if (!power?.off || !contactor) return [];
  return [
    {
      id: 'power.off',
      rank: 'protects',
      wish: ['startStop', 'estop'],
      operation: power.off,
      looks: [{ trial: 'power.off', mark: 'powerOffPressed' }],
      must: { kind: 'shows', signal: `${contactor}.on`, on: false },
    },
  ];
}

/** Kinds of parts that have a source of their own: the controller's loop supply is switched off elsewhere. */
const foreign: readonly string[] = ['loopSupply', 'controllerInput', 'controllerContact'];

/** The supply disconnecting device leaves everything dead but what has a source of its own, and that is listed. */
export function disconnected({ isolator, devices }: Arrangement): Requirement[] {
  if (!isolator) return [];
  const but = devices.filter(({ kind }) => foreign.includes(kind)).map(({ id }) => id);
  return [
    {
      id: 'isolator.dead',
      rank: 'protects',
      wish: ['isolator'],
      operation: undefined,
      looks: [{ trial: 'isolator.off', mark: 'isolatorOff' }],
      must: { kind: 'dead', but },
    },
  ];
}

/** A control supply, or one phase, that is lost under way and comes back starts nothing. */
export function supplies(a: Arrangement, { scheme }: Job, ids: readonly string[]): Requirement[] {
  // With the supply of a brake gone the motor is driven against it: that is nothing to be tried.
  if (!a.starts.forward || scheme.powerReturn === 'restart' || scheme.brakeRelease) return [];
  const phases = ids.filter((id) => id.startsWith('phase.'));
  const phase: Requirement = {
    id: 'phase.comesBack',
    rank: 'protects',
    wish: ['powerReturn'],
    operation: a.starts.forward,
    looks: phases.map((trial) => ({ trial, mark: 'returns', after: 'start' })),
    must: { kind: 'noRestart', since: 'lost' },
    simulatedOnly: true,
  };
  const own = a.lossBreakers.map((device): Requirement => ({
    id: `supply.${device}.comesBack`,
    rank: 'protects',
    wish: ['powerReturn'],
    operation: a.starts.forward,
    looks: [{ trial: `supply.${device}`, mark: 'returns', after: 'start' }],
    must: { kind: 'noRestart', since: 'lost' },
  }));
  return [phase, ...own];
}
