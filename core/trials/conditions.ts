import type { Act } from '../job/index.js';
import {
  directionsOf,
  give,
  powerOnActs,
  startActs,
  stopActs,
  take,
  type Direction,
  type OperationId,
} from '../scheme/index.js';
import { Lay, pressKey, TEST_SHARE, type ContactOrder, type Pace } from './lay.js';
import type { Trial } from './trial.js';

/** How long after an emergency stop somebody may start again, ms: the machine still turns. */
const RUNS_DOWN_MS = 700;

/**
 * Emergency stop and every condition for a run: opened under way, then closed again with the start still given; the same with
 * its contacts one after the other; and held open while every control is tried.
 */
export function conditions(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  const named: readonly [OperationId, string][] = [
    ...(a.estop ? [[a.estop, 'estop'] as [OperationId, string]] : []),
    ...a.interlocks.map((id): [OperationId, string] => [id, id]),
    ...(a.thermistor ? [[a.thermistor, a.thermistor] as [OperationId, string]] : []),
  ];
  return named.flatMap(([id, name]) => [
    opened(pace, id, name, TEST_SHARE),
    ...(name === 'estop' ? [opened(pace, id, 'estop.full', 1)] : []),
    ...pace
      .orders(a.operations[id]?.device)
      .map((order, i) => opened(pace, id, `${name}.order.${i + 1}`, TEST_SHARE, order)),
    ...channels(pace, id, name),
    blocked(pace, id, name),
    ...(name === 'estop' ? underWay(pace, id) : []),
  ]);
}

/**
 * The machine stopped from full speed and left until its guard can be opened; the same with the power gone and back at once, so
 * that whatever counts the time begins anew.
 */
export function locked(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  if (!a.lock || !a.starts.forward) return [];
  const lasts = a.lock.ms + RELEASED_MS;
  const stopped = new Lay(pace, 1).start();
  stopped.phase('stop', 'stopped', stopActs(a, 'forward', stopped.t), lasts);
  const cut = new Lay(pace, 1).start();
  const acts: Act[] = [
    { do: 'supplyOff', atMs: cut.t },
    { do: 'supplyOn', atMs: cut.t + DIP_MS },
  ];
  cut.phase('powerOff', 'stopped', [...acts, ...stopActs(a, 'forward', cut.t + 3 * DIP_MS)], lasts);
  return [stopped.done('guard.lock'), cut.done('guard.lock.power')];
}

/** When the lock has surely let go, beyond its time, and how long the power is gone, ms. */
const RELEASED_MS = 5000;
const DIP_MS = 1500;

/** The contacts at the ends of a way: opened under way, the run still given; then the other direction. */
export function ends(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  return (['forward', 'reverse'] as const).flatMap((way) => {
    const end = a.ends[way];
    if (!end || !a.starts[way]) return [];
    const l = new Lay(pace, TEST_SHARE).start(way);
    l.phase('opens', 'stopped', [give(a, end, l.t)], l.travelMs + 3000);
    const other = way === 'forward' ? 'reverse' : 'forward';
    const acts = [take(a, a.starts[way], l.t), ...startActs(a, other, l.t + 100)];
    if (a.starts[other]) l.phase('other', 'runs', acts, l.travelMs + 3000);
    return [l.done(end)];
  });
}

function opened(
  pace: Pace,
  id: OperationId,
  name: string,
  share: number,
  order: ContactOrder | undefined = undefined,
): Trial {
  const { arrangement: a } = pace;
  const again = id === a.estop && a.contactor !== undefined;
  const l = new Lay(pace, share).start();
  const lagged = (act: Act | undefined): Act | undefined =>
    act && order ? ({ ...act, ...order } as Act) : act;
  l.phase('opens', 'stopped', [lagged(give(a, id, l.t))], l.travelMs + 3000);
  const closes = [lagged(take(a, id, l.t)), ...(again ? powerOnActs(a, l.t + 500) : [])];
  return l.phase('closes', 'stopped', closes, l.travelMs + 4000).done(name);
}

/** Each contact of a part by itself, the others staying closed: one channel has failed or was never landed. */
function channels(pace: Pace, id: OperationId, name: string): Trial[] {
  const { arrangement: a } = pace;
  const device = a.operations[id]?.device;
  const firsts = pace.channels(device);
  if (firsts.length < 2) return [];
  return firsts.flatMap((first, i) => {
    const alone = (l: Lay, lasts: number): Act =>
      ({ ...give(a, id, l.t), first, lagMs: lasts + 1000 }) as Act;
    const l = new Lay(pace, TEST_SHARE).start();
    const lasts = l.travelMs + 3000;
    l.phase('opens', 'stopped', [alone(l, lasts)], lasts);
    const still = new Lay(pace, TEST_SHARE);
    still.phase('opens', 'quiet', [alone(still, 2000 + still.travelMs)], 2000).start();
    return [l.done(`${name}.channel.${i + 1}`), still.done(`${name}.channel.${i + 1}.blocks`)];
  });
}

/** The emergency stop in every motion: while the machine speeds up, slows down, turns round, jogs, runs from the keypad. */
function underWay(pace: Pace, id: OperationId): Trial[] {
  const { arrangement: a } = pace;
  const pressed = (l: Lay, variant: string): Trial =>
    l.phase('opens', 'stopped', [give(a, id, l.t)], l.travelMs + 3000).done(`estop.${variant}`);
  const lay = (share: number, always = false): Lay => new Lay(pace, share, always);
  const early = (l: Lay): number => Math.min(l.travelMs / 3, 3000) + pace.warningMs;
  const first = directionsOf(a)[0] ?? 'forward';
  const trials: Trial[] = [];
  const up = lay(1);
  trials.push(pressed(up.start(first, early(up)), 'accelerating'));
  const down = lay(1).start(first);
  down.phase('stop', 'stopped', stopActs(a, first, down.t), Math.min(down.travelMs / 3, 1000));
  trials.push(pressed(down, 'stopping'));
  if (directionsOf(a).length > 1) {
    const round = lay(1).start(first);
    const letGo =
      a.givenBy === 'level' && !a.direction ? take(a, a.starts[first], round.t) : undefined;
    const acts = [letGo, ...startActs(a, 'reverse', round.t + 100)];
    round.phase('reversed', 'runs', acts, early(round) + 100);
    trials.push(pressed(round, 'reversing'));
  }
  const jog = a.jogs.forward;
  if (jog) {
    const l = lay(TEST_SHARE);
    trials.push(pressed(l.phase('jog', 'runs', [give(a, jog, l.t)], l.travelMs), 'jogging'));
  }
  if (a.operations['local']) {
    const l = lay(TEST_SHARE, true);
    l.phase('keyLocal', 'quiet', [give(a, 'local', l.t)], 500);
    l.phase('keyStart', 'runs', pressKey('start', l.t), Math.max(3500, l.travelMs));
    trials.push(pressed(l, 'keypad'));
  }
  return trials;
}

/** A start given again while the machine still runs down: after the emergency stop, or after a stop that lets it coast. */
export function coastStart(pace: Pace, first: Direction): Trial[] {
  const { arrangement: a } = pace;
  if (a.contactor) return [];
  const l = new Lay(pace, 1).start(first);
  const stop = a.estop ? [give(a, a.estop, l.t)] : stopActs(a, first, l.t);
  l.phase('opens', 'quiet', stop, RUNS_DOWN_MS);
  const back = a.estop ? [take(a, a.estop, l.t)] : [];
  const again = a.givenBy === 'level' && a.estop ? [take(a, a.starts[first], l.t)] : [];
  l.phase(
    'startAgain',
    'quiet',
    [...back, ...again, ...startActs(a, first, l.t + 500)],
    500 + l.travelMs,
  );
  return [l.done('coast.start')];
}

/** A condition opened at rest and held open, while starts and jogs are given and let go one after the other. */
function blocked(pace: Pace, id: OperationId, name: string): Trial {
  const { arrangement: a } = pace;
  const l = new Lay(pace, TEST_SHARE);
  l.phase('opens', 'quiet', [give(a, id, l.t)], 1000);
  for (const way of directionsOf(a)) {
    l.phase('start', 'stopped', startActs(a, way, l.t), l.travelMs);
    l.phase('stop', 'stopped', stopActs(a, way, l.t), 1000);
  }
  for (const way of ['forward', 'reverse'] as const) {
    if (!a.jogs[way]) continue;
    l.phase('jog', 'stopped', [give(a, a.jogs[way], l.t)], l.travelMs);
    l.phase('jogReleased', 'stopped', [take(a, a.jogs[way], l.t)], 500);
  }
  return l.done(`${name}.blocks`);
}
