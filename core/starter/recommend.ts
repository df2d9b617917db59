import {
  atFullVoltage,
  breakaway,
  classTime,
  imageTau,
  imageTripTime,
  runAtVoltage,
  TRIP_HEAT,
  type StartWay,
  type TripClass,
} from '../motor/index.js';
import { heavier, HEAVIER } from './start-facts.js';
import { drivenMachine, type FedMachine } from './plan-run.js';

/** What a start can be made of on a device: whether it limits the current, and the classes of its overload. */
export interface StartMeans {
  readonly limits: boolean;
  readonly classes: readonly TripClass[];
  /** Shortest and longest ramp, s; largest and smallest voltage at first, %. */
  readonly beginPct: readonly [number, number];
  readonly limitPct: readonly [number, number];
}

/** A start recommended for a motor and its load, with what it is reckoned from. */
export interface Recommended {
  readonly beginPct: number;
  /** Absent where the device has no limit. */
  readonly limitPct?: number;
  readonly rampS: number;
  readonly tripClass: TripClass;
  /** The smallest limit at which this load starts at all, %. */
  readonly leastPct?: number;
  readonly startS: number;
  /** Heat of the image after it, from cold, as a share of what trips it. */
  readonly heatShare: number;
  /** No limit and no class of this device starts this load. */
  readonly impossible: boolean;
}

/** Torque at first above what breaks the load loose. */
const BREAK_MARGIN = 1.15;
/** Heat of one start from cold up to which a class is taken: the next start may come while it is still warm. */
const CLASS_SHARE = 0.7;
/** A start that is over by then is quick enough, s, where a limit of so many rated currents does it. */
const USUAL_START_S = 15;
const USUAL_LIMIT = 4;
/** A limit is found to this share of rated current. */
const LIMIT_PRECISION = 0.005;
const RAMP_S = { quick: 2, usual: 5, heavy: 10 } as const;

/** A start that takes longer is none, s. */
const LONGEST_TRIED_S = 600;

interface Tried {
  readonly starts: boolean;
  readonly startS: number;
  /** Heat at the end of the start by class. */
  heat(tripClass: TripClass): number;
}

/** Tries a way to start: whether the motor comes to speed, how long it takes, and how warm it gets. */
function tried(m: FedMachine, way: StartWay, untilS = LONGEST_TRIED_S): Tried {
  const bypassA = 1.2 * m.motorA;
  const run = runAtVoltage(drivenMachine(m), way, {
    fullBelowA: bypassA,
    tolerance: 1e-4,
    stepShare: 4,
    untilS,
  });
  const end = run.points.find((p) => p.share >= 1 - 1e-9 && p.amps < bypassA);
  return {
    starts: !run.stalls && end !== undefined,
    startS: end?.t ?? Infinity,
    heat: (tripClass) => heatAlong(run.points, m.motorA, imageTau(tripClass), end?.t ?? Infinity),
  };
}

/** Heat of an image driven along a run up to a moment, from cold: exact between points of constant current. */
function heatAlong(
  points: readonly { readonly t: number; readonly amps: number }[],
  settingA: number,
  tauS: number,
  untilS: number,
): number {
  let heat = 0;
  for (let i = 1; i < points.length && points[i].t <= untilS; i++) {
    const toward = (points[i - 1].amps ** 2 + points[i].amps ** 2) / 2 / settingA ** 2;
    heat = toward + (heat - toward) * Math.exp(-(points[i].t - points[i - 1].t) / tauS);
  }
  return heat;
}

/**
 * The smallest current limit at which a load starts and the image of a class does not trip from cold, found by halving.
 *
 * @param within longest time the start may take, s
 * @returns in rated current; undefined where a direct start does not do it either
 */
export function smallestLimit(
  m: FedMachine,
  tripClass: TripClass,
  within = Infinity,
): number | undefined {
  const locked = atFullVoltage(m.motor, 0).amps / m.motorA;
  const does = (ratio: number): boolean => {
    // Held at the limit, the image trips at this moment: a start that is not over by then is none.
    const trips = imageTripTime(ratio, classTime(tripClass), 0) ?? LONGEST_TRIED_S;
    const limit: StartWay = { kind: 'currentLimit', limitA: ratio * m.motorA };
    const t = tried(m, limit, Math.min(trips + 1, LONGEST_TRIED_S));
    return t.starts && t.startS <= within && t.heat(tripClass) < TRIP_HEAT;
  };
  if (!does(locked)) return undefined;
  let [low, high] = [1, locked];
  while (high - low > LIMIT_PRECISION) {
    const middle = (low + high) / 2;
    if (does(middle)) high = middle;
    else low = middle;
  }
  return high;
}

const upTo5 = (pct: number): number => 5 * Math.ceil(pct / 5 - 1e-9);
const between = (x: number, [low, high]: readonly [number, number]): number =>
  Math.min(Math.max(x, low), high);

/**
 * A start for this motor and load: it begins above what breaks the load loose, limits the current to what still starts
 * a load a fifth heavier, and takes the smallest class that lets it pass with room for a second one.
 *
 * @example recommendStart(machine, means).limitPct // 285
 */
export function recommendStart(m: FedMachine, means: StartMeans): Recommended {
  const locked = atFullVoltage(m.motor, 0);
  const share = Math.sqrt((BREAK_MARGIN * Math.max(0, breakaway(m.load))) / locked.torqueNm);
  const beginPct = between(upTo5(100 * Math.min(1, share)), means.beginPct);
  const patient = means.classes[means.classes.length - 1];
  const least = means.limits ? smallestLimit(m, patient) : undefined;
  const toBegin = ((beginPct / 100) * locked.amps) / m.motorA;
  // The limit still starts a load that is a fifth heavier, and does not take all day.
  const heavy = { ...m, load: heavier(m.load, HEAVIER) };
  const safe = means.limits ? (smallestLimit(heavy, patient) ?? least) : undefined;
  const quick = means.limits ? smallestLimit(m, patient, USUAL_START_S) : undefined;
  const timely = Math.min(quick ?? 0, USUAL_LIMIT);
  const wanted = safe === undefined ? undefined : Math.max(safe, toBegin, timely);
  const limitPct = wanted === undefined ? undefined : between(upTo5(100 * wanted), means.limitPct);
  const limits = limitPct === undefined ? {} : { limitA: (limitPct / 100) * m.motorA };
  const way = (rampS: number): StartWay => ({
    kind: limitPct === undefined ? 'voltageRamp' : 'rampAndLimit',
    fraction: beginPct / 100,
    rampS,
    ...limits,
  });
  const first = tried(m, way(RAMP_S.quick));
  const rampS = first.startS < 3 ? RAMP_S.quick : first.startS < 8 ? RAMP_S.usual : RAMP_S.heavy;
  const start = tried(m, way(rampS));
  const tripClass = means.classes.find((c) => start.heat(c) <= CLASS_SHARE * TRIP_HEAT) ?? patient;
  const heatShare = start.heat(tripClass) / TRIP_HEAT;
  return {
    beginPct,
    ...(limitPct === undefined ? {} : { limitPct }),
    ...(least === undefined ? {} : { leastPct: 100 * least }),
    rampS,
    tripClass,
    startS: start.startS,
    heatShare,
    impossible: !start.starts || heatShare >= 1,
  };
}
