import type { Act } from '../job/index.js';
import {
  directionsOf,
  give,
  powerOnActs,
  startActs,
  stopActs,
  take,
  type Arrangement,
  type Direction,
} from '../scheme/index.js';
import { Lay, type Pace } from './lay.js';
import type { Trial } from './trial.js';

const CARD_DARK_MS = 60_000;

const supply = (on: boolean, atMs: number): Act => ({ do: on ? 'supplyOn' : 'supplyOff', atMs });

/**
 * What a behaviour card shows, one after the other: press and release, both together, direction flip under way, stop let go
 * with start held, emergency stop and its release, power cut and return with nothing let go. Parts the station cannot do
 * are left out.
 */
export function showTrial(pace: Pace): Trial {
  const { arrangement: a } = pace;
  const l = new Lay(pace, 1);
  const [first, second] = directionsOf(a);
  if (!first) return l.done('show');
  const stop = (d: Direction): Lay => l.phase('stop', 'stopped', stopActs(a, d, l.t), l.travelMs);
  l.start(first);
  stop(first);
  if (second) flip(l, a, first, second);
  if (a.givenBy === 'pulse' && a.stops[0]) heldStart(l, a, first);
  if (a.estop) {
    l.start(first);
    l.phase('estop', 'stopped', [give(a, a.estop, l.t)], l.travelMs);
    l.phase('estopReleased', 'stopped', [take(a, a.estop, l.t)], l.travelMs);
    if (a.contactor) l.phase('powerOn', 'stopped', powerOnActs(a, l.t), l.travelMs + 2000);
    stop(first);
    l.reset();
  }
  l.start(first);
  l.phase('powerOff', 'stopped', [supply(false, l.t)], CARD_DARK_MS);
  l.phase('powerReturns', 'returned', [supply(true, l.t)], l.travelMs + 3000);
  if (a.contactor) l.phase('powerOn', 'returned', powerOnActs(a, l.t), l.travelMs + 3000);
  return l.done('show');
}

function flip(l: Lay, a: Arrangement, first: Direction, second: Direction): void {
  const longer = 2 * l.travelMs;
  const stop = (d: Direction): Lay => l.phase('stop', 'stopped', stopActs(a, d, l.t), l.travelMs);
  l.start(first);
  if (a.direction) {
    l.phase('flip', 'runs', [give(a, a.direction, l.t)], longer);
    stop(second);
    l.phase('flipBack', 'stopped', [take(a, a.direction, l.t)], 500);
    return;
  }
  if (a.givenBy === 'pulse') {
    l.phase('otherStart', 'runs', startActs(a, second, l.t), longer);
    stop(second);
    return;
  }
  const [one, other] = [a.starts[first], a.starts[second]].map(
    (id) => id && a.operations[id]?.device,
  );
  const same = one === other;
  l.phase(same ? 'flip' : 'both', 'runs', [give(a, a.starts[second], l.t)], longer);
  if (!same) l.phase('firstReleased', 'runs', [take(a, a.starts[first], l.t)], l.travelMs);
  stop(second);
}

function heldStart(l: Lay, a: Arrangement, first: Direction): void {
  const [start, stop] = [a.starts[first], a.stops[0]];
  l.phase('startHeld', 'runs', [give(a, start, l.t)], l.travelMs);
  l.phase('stopPressed', 'stopped', [give(a, stop, l.t)], l.travelMs);
  l.phase('stopReleased', 'stopped', [take(a, stop, l.t)], l.travelMs);
  l.phase('startReleased', 'stopped', [take(a, start, l.t)], 500);
  l.phase('stop', 'stopped', stopActs(a, first, l.t), l.travelMs);
}

/** Moments at which a fault comes, in a sweep. */
export interface FaultMoments {
  readonly beforePower: number;
  readonly stopped: number;
  readonly running: number;
  readonly stopping: number;
}

/**
 * What every fault is held against: start, run and stop in each direction, stop from every station, emergency stop and
 * conditions with their return, power cut and return with nothing let go, and a last stop. Every act ends at rest.
 */
export function sweepTrial(pace: Pace): { trial: Trial; moments: FaultMoments } {
  const { arrangement: a, travelMs: travel, warningMs } = pace;
  const l = new Lay(pace, 0.5);
  const directions = directionsOf(a);
  const [first, second] = [directions[0] ?? 'forward', directions[1] ?? directions[0] ?? 'forward'];
  const ready = l.t;
  // A run lasts two travels, so that a fault in its middle has come to rest before the run is looked at.
  const run = (d: Direction, station = 0): void => {
    l.start(d, 2 * travel + warningMs);
    l.phase('stop', 'stopped', stopActs(a, d, l.t, station), travel);
  };
  run(first);
  run(second, a.stops.length > 1 ? 1 : 0);
  const opened = a.estop ? [a.estop, ...a.interlocks] : a.interlocks;
  for (const id of opened) {
    const again = id === a.estop ? powerOnActs(a, 0) : [];
    l.start(first, travel + warningMs);
    l.phase('opens', 'stopped', [give(a, id, l.t)], travel);
    l.phase('stop', 'stopped', stopActs(a, first, l.t), 1000);
    const closes = [
      take(a, id, l.t),
      ...again.map((act) => ({ ...act, atMs: act.atMs + l.t + 500 })),
    ];
    l.phase('closes', 'stopped', closes, id === a.estop ? 4000 : 1000);
    if (id === a.estop) l.reset();
  }
  l.start(first, 2 * travel + warningMs);
  l.phase('powerOff', 'stopped', [supply(false, l.t)], CARD_DARK_MS);
  l.phase('powerReturns', 'returned', [supply(true, l.t)], 5000 + warningMs + travel);
  l.phase('stop', 'end', stopActs(a, first, l.t), travel);
  return {
    trial: l.done('sweep'),
    moments: {
      beforePower: 0,
      stopped: ready - 600,
      running: ready + warningMs + travel,
      stopping: ready + 2 * travel + warningMs + 250,
    },
  };
}
