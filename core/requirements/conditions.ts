import type { Arrangement, OperationId } from '../scheme/index.js';
import { withLags } from './power.js';
import type { Look, Requirement } from './requirement.js';

/**
 * Emergency stop, guard, level, foot stop: opened it stops, in whichever order its contacts open; while it is open no control
 * moves the motor; closing it starts nothing, with the run still given.
 */
export function opened(
  a: Arrangement,
  ids: readonly string[],
  operation: OperationId,
  name: string,
  wish: readonly string[],
): Requirement[] {
  const common = { rank: 'protects' as const, wish, operation };
  const orders = ids.filter((id) => id.startsWith(`${name}.order.`));
  const whole = [...withLags(ids, name), ...(name === 'estop' ? ['estop.full'] : []), ...orders];
  const looks = (mark: string): Look[] => whole.map((trial) => ({ trial, mark, after: 'start' }));
  const blocks = ['start', 'jog'].map((mark): Look => ({ trial: `${name}.blocks`, mark }));
  return [
    {
      ...common,
      id: `${name}.stops`,
      looks: [...looks('opens'), ...(name === 'estop' ? underWay(ids) : [])],
      must: { kind: 'stopped' },
    },
    {
      ...common,
      id: `${name}.blocks`,
      looks: blocks.filter(({ mark }) => mark === 'start' || hasJog(a)),
      must: { kind: 'staysStopped' },
    },
    { ...common, id: `${name}.released`, looks: looks('closes'), must: { kind: 'staysStopped' } },
    ...ids
      .filter((id) => id.startsWith(`${name}.channel.`))
      .map((trial): Requirement =>
        trial.endsWith('.blocks')
          ? {
              ...common,
              id: trial,
              looks: [{ trial, mark: 'start' }],
              must: { kind: 'staysStopped' },
              // Only a head that cuts the torque is worth a broken conductor at the machine.
              ...(name === 'estop' ? {} : { simulatedOnly: true }),
            }
          : {
              ...common,
              id: `${trial}.alone`,
              looks: [{ trial, mark: 'opens', after: 'start' }],
              must: { kind: 'stopped' },
              simulatedOnly: true,
            },
      ),
  ];
}

/** The guard cannot be opened while the machine turns, whatever the power did; when it stands it can. */
export function lockedGuard({ lock, operations }: Arrangement): Requirement[] {
  if (!lock) return [];
  const signal = `${lock.device}.on`;
  const common = { wish: ['guardLockS', 'interlocks'], rank: 'protects' as const };
  const operation: OperationId = 'interlock.guard';
  if (!operations[operation]) return [];
  const after = 'start';
  return [
    {
      ...common,
      operation,
      id: 'guard.locked',
      looks: [
        { trial: 'guard.lock', mark: 'stop', after },
        { trial: 'guard.lock.power', mark: 'powerOff', after },
      ],
      must: { kind: 'offWhileTurning', signal },
    },
    {
      ...common,
      operation,
      rank: 'moves',
      id: 'guard.frees',
      looks: [{ trial: 'guard.lock', mark: 'stop', after }],
      must: { kind: 'shows', signal, on: true },
    },
  ];
}

/** Hot windings stop the motor and bar every start; when they have cooled a start is needed. Nobody heats a motor for it. */
export const hotWindings = (a: Arrangement, ids: readonly string[]): Requirement[] =>
  (a.thermistor ? opened(a, ids, a.thermistor, 'thermistor', ['thermistor']) : []).map((r) =>
    r.id === 'thermistor.blocks' ? r : { ...r, simulatedOnly: true },
  );

/** The contact at the end of a way stops the direction that leads there, and lets the other one lead away. */
export function ends(a: Arrangement): Requirement[] {
  return (['forward', 'reverse'] as const).flatMap((way): Requirement[] => {
    const operation = a.ends[way];
    if (!operation) return [];
    const other = way === 'forward' ? 'reverse' : 'forward';
    const trial = operation;
    const common = { rank: 'protects' as const, wish: ['endLimits'], operation };
    return [
      {
        ...common,
        id: `${operation}.stops`,
        looks: [{ trial, mark: 'opens', after: 'start' }],
        must: { kind: 'stopped' },
      },
      ...(a.starts[other]
        ? ([
            {
              ...common,
              rank: 'moves',
              id: `${operation}.leadsAway`,
              looks: [{ trial, mark: 'other' }],
              must: { kind: 'turns', way: other },
              simulatedOnly: true,
            },
          ] satisfies Requirement[])
        : []),
    ];
  });
}

/** The emergency stop in every motion that the station can make. */
const underWay = (ids: readonly string[]): Look[] =>
  [
    { trial: 'estop.accelerating', mark: 'opens', after: 'start' },
    { trial: 'estop.stopping', mark: 'opens', after: 'start' },
    { trial: 'estop.reversing', mark: 'opens', after: 'start' },
    { trial: 'estop.jogging', mark: 'opens', after: 'jog' },
    { trial: 'estop.keypad', mark: 'opens', after: 'keyStart' },
  ].filter(({ trial }) => ids.includes(trial));

const hasJog = ({ jogs }: Arrangement): boolean => Object.keys(jogs).length > 0;
