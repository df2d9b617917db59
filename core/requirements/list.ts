import type { Job } from '../job/index.js';
import {
  chosenApart,
  contactorByRelay,
  OUTPUT_CONTACTOR,
  directionsOf,
  type Arrangement,
  type OperationId,
} from '../scheme/index.js';
import type { Trials } from '../trials/index.js';
import { ends, hotWindings, lockedGuard, opened } from './conditions.js';
import { disconnected, powerOff, powerOn, powerReturn, supplies, withLags } from './power.js';
import { relaySignal, type Look, type Requirement } from './requirement.js';

/** What a list of requirements is made from; trials only say which experiments this station can do. */
type Source = Pick<Trials, 'arrangement' | 'list'> & { readonly job: Job };

/**
 * Functions that the machine must have by what was wished, in the order of rising energy.
 *
 * @returns nothing for what the job has no subject for: no head, no requirement of it
 */
export function requirementsOf({ arrangement, list, job }: Source): Requirement[] {
  const ids = list.map((t) => t.id);
  const { estop } = arrangement;
  return [
    ...directions(arrangement),
    ...stops(arrangement, ids),
    ...(estop ? opened(arrangement, ids, estop, 'estop', ['estop']) : []),
    ...arrangement.interlocks.flatMap((id) =>
      opened(arrangement, ids, id, id, wishOf(id)).filter(
        // Who works an isolator stands beside the machine.
        (r) => !(mayRestart(job) && id !== 'interlock.isolator' && r.id === `${id}.released`),
      ),
    ),
    ...hotWindings(arrangement, ids),
    ...lockedGuard(arrangement),
    ...unloaded(arrangement, ids),
    ...ends(arrangement),
    ...jogs(arrangement),
    ...jogSelect(arrangement, job),
    ...speeds(arrangement, job),
    ...powerReturn(arrangement, job, ids),
    ...powerOn(),
    ...powerOff(arrangement),
    ...disconnected(arrangement),
    ...supplies(arrangement, job, ids),
    ...timeToRest(arrangement, job),
    ...warning(arrangement),
    ...permission(arrangement),
    ...places(arrangement),
    ...shows(arrangement, job),
  ].filter((r) => r.looks.length > 0 && r.looks.every((look) => ids.includes(look.trial)));
}

/** Conditions that Plate asks for, by the block that names them. */
const asked: Partial<Record<OperationId, readonly string[]>> = {
  'interlock.isolator': ['motorIsolator'],
  'interlock.resistor': ['resistor'],
  'interlock.output': ['outputContactor'],
};

/** What asks for a condition. */
const wishOf = (id: OperationId): readonly string[] =>
  id === 'foot' ? ['footStop'] : (asked[id] ?? ['interlocks']);

/** A contactor between device and motor closes before the output drives, and opens after it has been taken away. */
function unloaded({ operations, devices }: Arrangement, ids: readonly string[]): Requirement[] {
  if (!devices.some(({ id }) => id === OUTPUT_CONTACTOR)) return [];
  const trials = ids.filter(
    (id) => id === 'interlock.output' || id.startsWith('interlock.output.order'),
  );
  return [
    {
      id: 'output.unloaded',
      rank: 'protects',
      wish: ['outputContactor'],
      operation: operations['interlock.output'] ? 'interlock.output' : undefined,
      looks: [
        ...trials.map((trial) => ({ trial, mark: 'closes' })),
        { trial: 'direction.forward', mark: 'start' },
      ],
      must: { kind: 'onWhileDriving', signal: `${OUTPUT_CONTACTOR}.on` },
      simulatedOnly: true,
    },
  ];
}

/** A run that goes on by itself when its condition comes back is wished where nobody can be at the machine. */
const mayRestart = ({ scheme }: Job): boolean =>
  scheme.powerReturn === 'restart' &&
  scheme.exposed !== undefined &&
  scheme.exposed !== 'atMachine';

/** The forward control turns the machine forward, the reverse one the other way. */
function directions(a: Arrangement): Requirement[] {
  return directionsOf(a).map((way) => ({
    id: `direction.${way}`,
    rank: 'moves',
    wish: ['direction', 'startStop'],
    operation: a.starts[way],
    looks: [{ trial: `direction.${way}`, mark: 'start' }],
    must: { kind: 'turns', way },
  }));
}

/** Every stop stops, wins over a start that is held, and starts nothing when it is let go. */
function stops(a: Arrangement, ids: readonly string[]): Requirement[] {
  const wish = ['startStop', 'stopStations'];
  const rank = 'protects' as const;
  const first = a.stops[0] ?? a.starts.forward;
  const held = (mark: string): Look[] =>
    withLags(ids, 'stop.held').map((trial) => ({ trial, mark, after: 'startHeld' }));
  const common = { rank, wish, operation: first };
  return [
    {
      ...common,
      id: 'stop.1.stops',
      looks: [{ trial: 'ramps', mark: 'stop', after: 'start' }],
      must: { kind: 'stopped' },
    },
    ...(a.stops[0]
      ? ([
          {
            ...common,
            id: 'stop.1.dominates',
            looks: held('stopPressed'),
            must: { kind: 'stopped' },
          },
          {
            ...common,
            id: 'stop.1.released',
            looks: held('stopReleased'),
            must: { kind: 'staysStopped' },
          },
        ] satisfies Requirement[])
      : []),
    ...a.stops.slice(1).map((operation, i): Requirement => ({
      rank,
      wish,
      operation,
      id: `stop.${i + 2}.stops`,
      looks: [{ trial: `station.${i + 2}`, mark: 'stop', after: 'start' }],
      must: { kind: 'stopped' },
    })),
  ];
}

/** A jog moves the motor its way, and only while it is held. */
function jogs(a: Arrangement): Requirement[] {
  return (['forward', 'reverse'] as const).flatMap((way): Requirement[] => {
    const operation = a.jogs[way];
    if (!operation) return [];
    const common = { wish: ['jog'], operation };
    const trial = `jog.${way}`;
    return [
      {
        ...common,
        id: `jog.${way}.turns`,
        rank: 'moves',
        looks: [{ trial, mark: 'jog' }],
        must: { kind: 'turns', way },
      },
      {
        ...common,
        id: `jog.${way}.onlyHeld`,
        rank: 'protects',
        looks: [{ trial, mark: 'jogReleased', after: 'jog' }],
        must: { kind: 'stopped' },
      },
    ];
  });
}

/** What a dial may miss at its end: its own resistance loads the reference that feeds it. */
const DIAL_SHARE = 0.08;

/** The speed that is wished: each preset, and the highest where the speed is set as high as it goes. */
function speeds(a: Arrangement, { scheme }: Job): Requirement[] {
  const rank = 'moves' as const;
  const presets = a.presets.flatMap((operation, i): Requirement[] => {
    const hz = scheme.presetsHz?.[i];
    if (hz === undefined) return [];
    const looks = [{ trial: `preset.${i + 1}`, mark: 'start' }];
    return [
      {
        id: `preset.${i + 1}.speed`,
        rank,
        wish: ['presetsHz'],
        operation,
        looks,
        must: { kind: 'speed', hz, share: 0.01 },
      },
    ];
  });
  if (chosenApart(a) && scheme.presetsHz)
    presets.push({
      id: 'preset.together',
      rank,
      wish: ['presetsBy', 'presetsHz'],
      operation: a.presets[0],
      looks: [{ trial: 'preset.together', mark: 'start' }],
      must: { kind: 'atMost', hz: Math.max(...scheme.presetsHz) },
    });
  if (scheme.maxHz !== undefined && directionsOf(a).length > 0)
    presets.push({
      id: 'speed.limits',
      rank,
      wish: ['maxHz', 'speed', 'presetsHz'],
      operation: a.starts.forward,
      looks: [{ trial: 'speed.limits', mark: 'start' }],
      must: { kind: 'atMost', hz: scheme.maxHz },
      simulatedOnly: true,
    });
  if (a.dial === undefined) return presets;
  if (scheme.minHz !== undefined)
    presets.push({
      id: 'speed.lowest',
      rank,
      wish: ['minHz', 'speed'],
      operation: a.starts.forward,
      looks: [{ trial: 'dial.0', mark: 'start' }],
      must: { kind: 'speed', hz: scheme.minHz, share: DIAL_SHARE },
    });
  const rising: Requirement = {
    id: 'speed.rises',
    rank,
    wish: ['speed'],
    operation: a.starts.forward,
    looks: [25, 75, 100].map((pct) => ({ trial: `dial.${pct}`, mark: 'start' })),
    must: { kind: 'rises' },
  };
  if (scheme.maxHz === undefined) return [...presets, rising];
  return [
    ...presets,
    rising,
    {
      id: 'speed.highest',
      rank,
      wish: ['maxHz', 'speed'],
      operation: a.starts.forward,
      looks: [{ trial: 'dial.100', mark: 'start' }],
      must: { kind: 'speed', hz: scheme.maxHz, share: DIAL_SHARE },
    },
  ];
}

/** The machine is at rest within the time that its guards and its assessment rely on. */
function timeToRest(a: Arrangement, { scheme }: Job): Requirement[] {
  const s = scheme.restWithinS;
  if (s === undefined || directionsOf(a).length === 0) return [];
  const common = { rank: 'protects' as const, wish: ['restWithinS'] };
  const stop = a.stops[0] ?? a.starts.forward;
  return [
    {
      ...common,
      id: 'stop.1.inTime',
      operation: stop,
      looks: [{ trial: 'ramps', mark: 'stop', after: 'start' }],
      must: { kind: 'restsWithin', s },
    },
    ...(a.estop
      ? [
          {
            ...common,
            id: 'estop.inTime',
            operation: a.estop,
            looks: [{ trial: 'estop.full', mark: 'opens', after: 'start' }],
            must: { kind: 'restsWithin', s } as const,
          },
        ]
      : []),
  ];
}

/** A horn sounds for its time before the motor moves. */
function warning(a: Arrangement): Requirement[] {
  if (a.hornMs === 0 || !a.starts.forward) return [];
  return [
    {
      id: 'warning.sounds',
      rank: 'protects',
      wish: ['startWarningS'],
      operation: a.starts.forward,
      looks: [{ trial: 'direction.forward', mark: 'start' }],
      must: { kind: 'warns', signal: 'horn.lit', ms: a.hornMs },
    },
  ];
}

/** A damper, a valve, a lubricator has answered before the motor moves, whichever way it is to turn. */
function permission(a: Arrangement): Requirement[] {
  if (!a.permission) return [];
  const { device, ms } = a.permission;
  return directionsOf(a).map((way) => ({
    id: `permission.${way}.answers`,
    rank: 'protects' as const,
    wish: ['permission'],
    operation: a.starts[way],
    looks: [{ trial: `direction.${way}`, mark: 'start' }],
    must: { kind: 'answersFirst' as const, signal: `${device}.on`, ms },
  }));
}

/** A switch that only chooses the jog speed: alone it moves nothing, with a run given the motor turns at that speed. */
function jogSelect(a: Arrangement, { scheme }: Job): Requirement[] {
  const operation = 'jogReferenceSelect' as const;
  if (!a.operations[operation] || !a.starts.forward) return [];
  const common = { wish: ['jog'], operation };
  const trial = 'jog.select';
  return [
    {
      ...common,
      id: 'jogSelect.startsNothing',
      rank: 'protects',
      looks: [{ trial, mark: 'given' }],
      must: { kind: 'staysStopped' },
    },
    {
      ...common,
      id: 'jogSelect.speed',
      rank: 'moves',
      looks: [{ trial, mark: 'start' }],
      must: { kind: 'speed', hz: scheme.jogHz ?? 5, share: 0.01 },
    },
  ];
}

/** The key turned back with a start given at the other place starts nothing; the station's stop acts at every place. */
function places(a: Arrangement): Requirement[] {
  if (!a.operations['local']) return [];
  const back: Requirement = {
    id: 'place.remote',
    rank: 'protects',
    wish: ['localRemote'],
    operation: 'local',
    looks: [{ trial: 'place.takeover', mark: 'keyRemote' }],
    must: { kind: 'staysStopped' },
  };
  const [stop] = a.stops;
  if (!stop) return [back];
  return [
    back,
    {
      id: 'place.stop',
      rank: 'protects',
      wish: ['localRemote', 'startStop'],
      operation: stop,
      looks: [{ trial: 'place.stop', mark: 'stop', after: 'keyStart' }],
      must: { kind: 'stopped' },
    },
  ];
}

/** Lamps by what their label says: lit at rest, lit while running. */
const lampsTell: Readonly<Record<string, { readonly rest: boolean; readonly running: boolean }>> = {
  running: { rest: false, running: true },
  stopped: { rest: true, running: false },
  healthy: { rest: true, running: true },
  stopReleased: { rest: true, running: true },
  contactorClosed: { rest: true, running: true },
};

/** Relays of the device by what they stand for: closed at rest, closed while running at speed. */
const relaysTell: Readonly<
  Record<
    Exclude<NonNullable<Job['scheme']['status']>[number], 'meter'>,
    { readonly rest: boolean; readonly running: boolean }
  >
> = {
  running: { rest: false, running: true },
  healthy: { rest: true, running: true },
  atSpeed: { rest: false, running: true },
  fault: { rest: false, running: false },
  ready: { rest: true, running: false },
};

/** Every lamp, relay and signal tells what its label says; a brake is open only with torque and closed without it. */
function shows(a: Arrangement, { scheme }: Job): Requirement[] {
  if (!a.starts.forward) return [];
  const rest: Look = { trial: 'supply.on', mark: 'ready' };
  const running: Look = { trial: 'direction.forward', mark: 'start' };
  const tells = (
    part: string,
    signal: string,
    wish: string,
    on: Record<'rest' | 'running', boolean>,
  ) =>
    (['rest', 'running'] as const).map((when): Requirement => ({
      id: `${part}.${when}`,
      rank: 'tells',
      wish: [wish],
      operation: a.starts.forward,
      looks: [when === 'rest' ? rest : running],
      must: { kind: 'shows', signal, on: on[when] },
    }));
  // A contactor that the device closes for a run is open at rest.
  const lampTells = (name: string) =>
    name === 'contactorClosed' && contactorByRelay(a)
      ? { rest: false, running: true }
      : lampsTell[name];
  const lamps = (scheme.lamps ?? []).flatMap((name) =>
    tells(`lamp.${name}`, `lamp.${name}.lit`, 'lamps', lampTells(name)),
  );
  const relays = (scheme.status ?? []).flatMap((name) =>
    name === 'meter' ? [] : tells(`status.${name}`, relaySignal(name), 'status', relaysTell[name]),
  );
  const runs = scheme.handshake
    ? tells('controller.runs', 'controller.runs.lit', 'handshake', { rest: false, running: true })
    : [];
  if (!scheme.brakeRelease) return [...lamps, ...relays, ...runs];
  const brake = { wish: ['brakeRelease'], operation: a.starts.forward };
  const must = (on: boolean) => ({ kind: 'shows', signal: 'brake.on', on }) as const;
  return [
    ...lamps,
    ...relays,
    ...runs,
    { ...brake, id: 'brake.opens', rank: 'moves', looks: [running], must: must(true) },
    {
      ...brake,
      id: 'brake.closes',
      rank: 'protects',
      looks: [
        rest,
        { trial: 'ramps', mark: 'stop', after: 'start' },
        ...(a.estop ? [{ trial: 'estop', mark: 'opens', after: 'start' }] : []),
      ],
      must: must(false),
    },
  ];
}
