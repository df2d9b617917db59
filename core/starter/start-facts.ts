import {
  breakaway,
  imageTau,
  loadTorque,
  runAtVoltage,
  type LoadCurve,
  type RunPoint,
  type TripClass,
} from '../motor/index.js';
import type { StarterSpec } from './logic.js';
import { drivenMachine, planStart, wayOf } from './plan-run.js';

/** What comes of the start that is set, on this motor and load. */
export interface StartFacts {
  /** No ramp and no limit: full voltage at once. */
  readonly direct: boolean;
  /** Torque at the first moment, and what breaks the load loose, Nm. */
  readonly beginNm: number;
  readonly breakNm: number;
  /** Time under voltage before the shaft moves, s; null where it never does. */
  readonly humsS: number | null;
  readonly stalls: boolean;
  /** Where it stalls: speed, torque of the motor there, and of the load. */
  readonly stallRpm: number;
  readonly stallNm: number;
  readonly loadNm: number;
  /** Time to full voltage with the current low, s; null where it never comes there. */
  readonly startS: number | null;
  readonly peakA: number;
  /** Mean current of the start, root mean square, and the one it runs at afterwards, A. */
  readonly rmsA: number;
  readonly runA: number;
  /** Moment at which the image trips, from cold and from a motor that has run at its rating, s; null where it does not. */
  readonly coldTripS: number | null;
  readonly hotTripS: number | null;
  readonly limitS: number;
  /** Current limit that is set, A; null where there is none. */
  readonly limitA: number | null;
  /** Smallest excess of the motor's torque over the load's while it gathers speed, % of the load's. */
  readonly marginPct: number;
  /** The same start with a load that is 20 % heavier. */
  readonly heavier: { readonly stalls: boolean; readonly startS: number | null };
  /** Both pauses are at nothing: the other direction is fed while the shaft still turns. */
  readonly plugs: boolean;
  readonly motorA: number;
  readonly deviceA: number;
  readonly tripClass: TripClass;
  readonly assumed: readonly string[];
}

export const HEAVIER = 1.2;

/** A load that asks for more everywhere. */
export const heavier = (load: LoadCurve, by: number): LoadCurve => ({
  ...load,
  ...(load.torqueNm === undefined ? {} : { torqueNm: load.torqueNm * by }),
  ...(load.constantNm === undefined ? {} : { constantNm: load.constantNm * by }),
  ...(load.breakawayNm === undefined ? {} : { breakawayNm: load.breakawayNm * by }),
  ...(load.table
    ? { table: load.table.map((row) => ({ ...row, torqueNm: row.torqueNm * by })) }
    : {}),
});

const seconds = (us: number): number | null => (us === Infinity ? null : us / 1e6);

/**
 * What the start under the settings keyed comes to: by the same run-up that the rehearsal makes.
 *
 * @example startFacts(spec, []).stalls // false
 */
export function startFacts(
  { control, machine }: StarterSpec,
  assumed: readonly string[],
): StartFacts {
  const from = { rad: 0, heat: 0, t: 0, phases: 3 } as const;
  const cold = planStart(control, machine, from);
  const hot = planStart(control, machine, { ...from, heat: 1 });
  const heavy = planStart(control, { ...machine, load: heavier(machine.load, HEAVIER) }, from);
  const last = cold.points[cold.points.length - 1];
  const started = Math.min(cold.bypassUs, cold.settledUs);
  return {
    direct: control.start.kind === 'direct',
    beginNm: cold.points[0].torqueNm,
    breakNm: breakaway(machine.load),
    humsS: brokeLoose(cold.points),
    stalls: cold.stalls,
    stallRpm: (last.rad * 30) / Math.PI,
    stallNm: last.torqueNm,
    loadNm: loadTorque(machine.load)(last.rad),
    startS: seconds(cold.bypassUs),
    peakA: Math.max(...cold.points.map((p) => p.amps)),
    rmsA: rmsOf(cold.points, started / 1e6),
    runA: last.amps,
    tripClass: control.tripClass,
    deviceA: machine.deviceA,
    coldTripS: tripWithin(cold.tripUs, started),
    hotTripS: tripWithin(hot.tripUs, Math.min(hot.bypassUs, hot.settledUs)),
    limitS: control.startLimitS,
    limitA: control.start.limitA ?? null,
    marginPct: marginOf(cold.points, control.start.limitA),
    heavier: { stalls: heavy.stalls, startS: seconds(heavy.bypassUs) },
    plugs:
      control.startMethod === 'twoEnables' &&
      !control.noReverse &&
      control.inhibitS === 0 &&
      control.reversePauseS === 0,
    motorA: machine.motorA,
    assumed,
  };
}

/** Current of a start, root mean square, up to a moment, A. */
function rmsOf(points: readonly RunPoint[], untilS: number): number {
  const end = points.findLast((p) => p.t <= untilS) ?? points[points.length - 1];
  return end.t > 0 ? Math.sqrt(end.i2t / end.t) : end.amps;
}

const tripWithin = (tripUs: number, startedUs: number): number | null =>
  tripUs <= startedUs ? tripUs / 1e6 : null;

function brokeLoose(points: readonly RunPoint[]): number | null {
  const at = points.findIndex((p) => p.rad > 0);
  return at < 0 ? null : points[Math.max(0, at - 1)].t;
}

/** Least excess of torque while the limit holds the voltage down: elsewhere it still rises by itself. */
function marginOf(points: readonly RunPoint[], limitA: number | undefined): number {
  if (limitA === undefined) return Infinity;
  const held = (p: RunPoint): boolean => p.share < 1 && Math.abs(p.amps / limitA - 1) < 1e-3;
  const moving = points.filter((p) => p.rad > 0 && p.loadNm > 0 && held(p));
  if (moving.length === 0) return Infinity;
  return Math.min(...moving.map((p) => 100 * (p.torqueNm / p.loadNm - 1)));
}

/** A start shown beside another: full voltage at once, or the one that is set. */
export interface StartCurve {
  readonly points: readonly {
    readonly t: number;
    readonly rpm: number;
    readonly amps: number;
    readonly torqueNm: number;
    readonly loadNm: number;
  }[];
  readonly stalls: boolean;
  readonly startS: number | null;
  readonly peakA: number;
}

const MOST_POINTS = 160;

/** The start that is set and the direct one, for a chart. */
export function startCurves({ control, machine }: StarterSpec): {
  readonly set: StartCurve;
  readonly direct: StartCurve;
} {
  const image = { settingA: machine.motorA, tauS: imageTau(control.tripClass), from: 0 };
  const bypassA = (control.bypassAtPct / 100) * machine.motorA;
  const curve = (way: ReturnType<typeof wayOf>): StartCurve => {
    const run = runAtVoltage(drivenMachine(machine), way, {
      image,
      tolerance: 1e-5,
      ...(control.endRampAtSpeed ? { fullBelowA: bypassA } : {}),
    });
    const end = run.points.find((p) => p.share >= 1 - 1e-9 && p.amps < bypassA);
    const every = Math.max(1, Math.ceil(run.points.length / MOST_POINTS));
    return {
      points: run.points
        .filter((_, i) => i % every === 0 || i === run.points.length - 1)
        .map(({ t, rad, amps, torqueNm, loadNm }) => ({
          t,
          rpm: (rad * 30) / Math.PI,
          amps,
          torqueNm,
          loadNm,
        })),
      stalls: run.stalls,
      startS: end?.t ?? null,
      peakA: Math.max(...run.points.map((p) => p.amps)),
    };
  };
  return { set: curve(wayOf(control)), direct: curve({ kind: 'direct' }) };
}
