import type { Act } from '../job/index.js';
import {
  chosenApart,
  directionsOf,
  give,
  operationsOn,
  PULSE_MS,
  startActs,
  stopActs,
  take,
  type Direction,
  type OperationId,
} from '../scheme/index.js';
import { conditions, coastStart, ends, locked } from './conditions.js';
import { Lay, pressKey, TEST_SHARE, type Pace } from './lay.js';
import type { Trial } from './trial.js';

/** Time without supply in which every display goes dark, ms. */
const DARK_MS = 120_000;
/** How long an input is given to follow its contact, through relays, ms. */
const INPUT_MS = 500;
/** Time a device takes to be ready when its supply returns, with a margin, ms. */
const READY_AGAIN_MS = 5000;
/** Dips long enough for a fault and too short for the display to go dark, ms. */
const DIPS_MS = [150, 300, 600] as const;
/** How long the key that raises the keypad's own speed is held, ms. */
const KEY_UP_MS = 20_000;
/** Shares at which a dial or signal is tried. */
const DIAL_SHARES = [0, 0.25, 0.5, 0.75, 1] as const;
const BUMP_SHARE = 0.2;

const supply = (on: boolean, atMs: number): Act => ({ do: on ? 'supplyOn' : 'supplyOff', atMs });

/**
 * Every single experiment on the station and machine of a job, in the order of rising energy: inputs at rest, the dial,
 * directions, stops, conditions, jog and presets, ramps, and power last. Each begins with power-up, so that it stands for
 * itself; trials with the same beginning share it when they run.
 */
export function singleTrials(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  const lay = (share: number): Lay => new Lay(pace, share);
  const trials: Trial[] = [lay(0).done('supply.on')];
  for (const f of a.inputs)
    operationsOn(a, f).forEach((operation, i) => {
      const l = lay(0);
      const acts = [give(a, operation, l.t)];
      trials.push(
        l.phase('given', 'quiet', acts, INPUT_MS + a.warningMs).done(`input.${f.id}.${i + 1}`),
      );
    });
  const [first] = directionsOf(a);
  if (!first) return trials;
  for (const share of DIAL_SHARES)
    trials.push(
      lay(share)
        .start(first)
        .done(`dial.${share * 100}`),
    );
  for (const d of directionsOf(a)) trials.push(lay(BUMP_SHARE).start(d).done(`direction.${d}`));
  trials.push(
    ...bothDirections(pace),
    ...stops(pace),
    ...conditions(pace),
    ...ends(pace),
    ...locked(pace),
    ...places(pace),
  );
  for (const way of ['forward', 'reverse'] as const) {
    const l = lay(TEST_SHARE);
    if (!a.jogs[way]) continue;
    l.phase('jog', 'runs', [give(a, a.jogs[way], l.t)], l.travelMs);
    l.phase('jogReleased', 'stopped', [take(a, a.jogs[way], l.t)], l.travelMs);
    trials.push(l.done(`jog.${way}`));
  }
  if (a.operations.jogReferenceSelect) {
    const l = lay(TEST_SHARE);
    l.phase('given', 'quiet', [give(a, 'jogReferenceSelect', l.t)], 2000);
    trials.push(l.start(first).done('jog.select'));
  }
  a.presets.forEach((preset, i) => {
    const l = lay(TEST_SHARE);
    const acts = [give(a, preset, l.t - 500), ...startActs(a, first, l.t)];
    trials.push(l.phase('start', 'runs', acts, l.travelMs).done(`preset.${i + 1}`));
  });
  if (chosenApart(a)) {
    const l = lay(TEST_SHARE);
    const all = a.presets.map((preset) => give(a, preset, l.t - 500));
    const acts = [...all, ...startActs(a, first, l.t)];
    trials.push(l.phase('start', 'runs', acts, l.travelMs).done('preset.together'));
  }
  const ramps = lay(1).start(first);
  trials.push(
    ramps.phase('stop', 'stopped', stopActs(a, first, ramps.t), ramps.travelMs).done('ramps'),
  );
  return withLags(
    [...trials, ...limits(pace, first), ...coastStart(pace, first), ...powerTrials(pace, first)],
    pace,
  );
}

/** Trials in which the contacts of a relay may start or keep something, or fail to stop it. */
const lagged: readonly string[] = ['stop.held', 'estop', 'power.return'];

/** The same trials once more with each contact of each relay before its others. */
function withLags(trials: readonly Trial[], { relayLags }: Pace): Trial[] {
  return trials.flatMap((trial) => [
    trial,
    ...(lagged.includes(trial.id)
      ? relayLags.map((lag, i) => ({ ...trial, id: `${trial.id}.relay.${i + 1}`, lag }))
      : []),
  ]);
}

/** Both directions given together, then one let go. */
function bothDirections(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  const { forward, reverse } = a.starts;
  if (a.givenBy === 'pulse' || !forward || !reverse) return [];
  if (a.operations[forward]?.device === a.operations[reverse]?.device) return [];
  const l = new Lay(pace, TEST_SHARE).start();
  l.phase('both', 'runs', [give(a, reverse, l.t)], 2 * l.travelMs);
  l.phase('firstReleased', 'runs', [take(a, forward, l.t)], 2 * l.travelMs);
  return [l.done('direction.both')];
}

/** A held start against the stop, and the stops of every further station. */
function stops(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  const trials: Trial[] = [];
  const start = a.starts.forward;
  if (start && a.stops[0]) {
    const l = new Lay(pace, TEST_SHARE);
    l.phase('startHeld', 'runs', [give(a, start, l.t), ...l.raised()], l.travelMs);
    l.phase('stopPressed', 'stopped', [give(a, a.stops[0], l.t)], l.travelMs);
    l.phase('stopReleased', 'stopped', [take(a, a.stops[0], l.t)], l.travelMs);
    trials.push(l.done('stop.held'));
  }
  a.stops.slice(1).forEach((_stop, i) => {
    const own = `start.${i + 2}` as OperationId;
    const l = new Lay(pace, TEST_SHARE);
    const pulse = [give(a, own, l.t), take(a, own, l.t + PULSE_MS)];
    l.phase('start', 'runs', pulse, l.travelMs);
    l.phase('stop', 'stopped', stopActs(a, 'forward', l.t, i + 1), l.travelMs);
    trials.push(l.done(`station.${i + 2}`));
  });
  return trials;
}

/** Change of place with a run given, and the station's stop under the keypad. */
function places(pace: Pace): Trial[] {
  const { arrangement: a } = pace;
  const start = a.starts.forward;
  if (!a.operations['local'] || !start) return [];
  const back = new Lay(pace, TEST_SHARE);
  back.phase('keyLocal', 'stopped', [give(a, 'local', back.t)], 1000);
  back.phase('start', 'stopped', [give(a, start, back.t)], 1000);
  back.phase('keyRemote', 'stopped', [take(a, 'local', back.t)], back.travelMs + 2000);
  const trials = [back.done('place.takeover')];
  const [stop] = a.stops;
  if (!stop) return trials;
  const l = new Lay(pace, TEST_SHARE, true);
  l.phase('keyLocal', 'stopped', [give(a, 'local', l.t)], 500);
  l.phase('keyStart', 'runs', pressKey('start', l.t), Math.max(3500, l.travelMs));
  l.phase('stop', 'stopped', [give(a, stop, l.t)], l.travelMs + 20_000);
  return [...trials, l.done('place.stop')];
}

/** Everything that gives a speed, one after the other, each as high as it goes: no combination may leave the limits. */
function limits(pace: Pace, first: Direction): Trial[] {
  const { arrangement: a } = pace;
  const l = new Lay(pace, 1, true).start(first);
  for (const preset of a.presets) l.phase('preset', 'runs', [give(a, preset, l.t)], l.travelMs);
  if (a.operations['local']) {
    l.phase('keyLocal', 'quiet', [give(a, 'local', l.t)], 1000);
    l.phase('keyStart', 'runs', pressKey('start', l.t), l.travelMs);
    l.phase('keyUp', 'runs', pressKey('up', l.t, KEY_UP_MS), KEY_UP_MS + l.travelMs);
  }
  return [l.done('speed.limits')];
}

/** Power removed and returned with the run still given; dips, and a fault reset with it given; the contactor opened. */
function powerTrials(pace: Pace, first: Direction): Trial[] {
  const { arrangement: a } = pace;
  const trials: Trial[] = [];
  const cut = (name: string, off: (t: number) => Act, on: (t: number) => Act): void => {
    const l = new Lay(pace, TEST_SHARE).start(first);
    l.phase('powerOff', 'stopped', [off(l.t)], DARK_MS);
    l.phase('powerReturns', 'returned', [on(l.t)], READY_AGAIN_MS + l.travelMs);
    trials.push(l.done(name));
  };
  cut(
    'power.return',
    (t) => supply(false, t),
    (t) => supply(true, t),
  );
  if (a.givenBy === 'pulse') {
    const turn =
      (position: string) =>
      (atMs: number): Act => ({
        do: 'turn',
        atMs,
        device: a.mainBreaker,
        position,
      });
    cut('breaker.return', turn('off'), turn('on'));
  }
  for (const device of a.lossBreakers) {
    const turn =
      (position: string) =>
      (atMs: number): Act => ({ do: 'turn', atMs, device, position });
    const l = new Lay(pace, TEST_SHARE).start(first);
    l.phase('lost', 'quiet', [turn('off')(l.t)], l.travelMs + 3000);
    l.phase('returns', 'quiet', [turn('on')(l.t)], READY_AGAIN_MS + l.travelMs);
    trials.push(l.done(`supply.${device}`));
  }
  if (a.isolator) {
    const l = new Lay(pace, 0);
    const device = a.isolator;
    const off: Act = { do: 'turn', atMs: l.t, device, position: 'off' };
    trials.push(l.phase('isolatorOff', 'quiet', [off], DARK_MS).done('isolator.off'));
  }
  for (const phase of pace.phases) {
    const l = new Lay(pace, TEST_SHARE).start(first);
    l.phase('lost', 'quiet', [{ do: 'supplyOff', atMs: l.t, phase }], l.travelMs + 3000);
    const back: Act = { do: 'supplyOn', atMs: l.t, phase };
    trials.push(
      l.phase('returns', 'quiet', [back], READY_AGAIN_MS + l.travelMs).done(`phase.${phase}`),
    );
  }
  for (const dip of DIPS_MS) {
    const l = new Lay(pace, 1).start(first);
    l.phase('dip', 'stopped', [supply(false, l.t), supply(true, l.t + dip)], 6000);
    l.phase('reset', 'stopped', pressKey('reset', l.t), 2000 + l.travelMs);
    trials.push(l.done(`fault.reset.${dip}`));
  }
  if (a.power?.off) {
    const l = new Lay(pace, 0);
    l.phase('powerOffPressed', 'quiet', [give(a, a.power.off, l.t)], 500);
    trials.push(l.done('power.off'));
  }
  return trials;
}
