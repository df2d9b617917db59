import { CalculationError, calculation, choice, positive, result } from '../calculation/index.js';
import { circuitArgument, exampleCircuit, motorAt, type MotorCircuit } from './circuit.js';
import type { LoadCurve } from './load-curve.js';
import { drivenBy, loadArgument, REACHED, runUpOf, startArgument } from './run-up.js';
import type { StartWay } from './start-way.js';
import {
  classTime,
  imageTau,
  imageTripTime,
  tripClasses,
  TRIP_HEAT,
  type TripClass,
} from './thermal.js';
import { runAtVoltage } from './voltage-run.js';

/** A limit is found to this share of itself. */
const PRECISION = 0.0025;
/** A start that takes longer is none, s. */
const LONGEST_S = 600;

interface Asked {
  readonly circuit: MotorCircuit;
  readonly inertiaKgm2: number;
  readonly load: LoadCurve;
  readonly start: StartWay & { readonly ratedTorqueNm?: number; readonly bypassA?: number };
  readonly withinS?: number;
  readonly tripClass?: TripClass;
  readonly ratedA?: number;
}

/** Whether a start at a limit comes to speed in time, and its image stays below the trip. */
function does(a: Asked, goal: number, limitA: number): boolean {
  const { circuit, inertiaKgm2, load, withinS = LONGEST_S, tripClass, ratedA } = a;
  const trips =
    tripClass && ratedA
      ? (imageTripTime(limitA / ratedA, classTime(tripClass), 0) ?? LONGEST_S)
      : LONGEST_S;
  const run = runAtVoltage(
    drivenBy(circuit, inertiaKgm2, load, a.start.ratedTorqueNm ?? 0),
    { ...a.start, limitA },
    {
      untilS: Math.min(withinS, trips, LONGEST_S) + 1,
      ...(a.start.bypassA ? { fullBelowA: a.start.bypassA } : {}),
      ...(tripClass && ratedA
        ? { image: { settingA: ratedA, tauS: imageTau(tripClass), from: 0 } }
        : {}),
    },
  );
  const at = run.points.find((p) => p.rad >= goal);
  return at !== undefined && at.t <= withinS && at.heat < TRIP_HEAT;
}

/**
 * The smallest current limit at which a load starts: it does not stall, is over in time, and the cold image of a class, driven
 * by the run's own current, does not trip.
 */
export const smallestLimit = calculation<
  Asked,
  { limitA: number | null; marginPct: number | null; startS: number | null; reason: string }
>({
  name: 'smallestLimit',
  title: 'Smallest current limit that starts',
  args: {
    circuit: circuitArgument,
    inertiaKgm2: positive('inertia at the motor', 'kg·m²', 1e5),
    load: loadArgument,
    start: startArgument,
    withinS: positive('within', 's', 3600, { optional: true }),
    tripClass: { ...choice('class', tripClasses), optional: true },
    ratedA: positive('setting of the overload', 'A', 1e5, { optional: true }),
  },
  results: {
    limitA: result('smallest limit', 'A'),
    marginPct: result('least torque to spare there', '%'),
    startS: result('start takes then', 's'),
    reason: result('why none'),
  },
  formula:
    'smallest I for which J·dω/dt = u²·T_e(s) − T_L(ω) > 0 up to speed, t ≤ t_within, θ < 1.15²',
  source: 'run-up with the current held at the limit; halving to 0.5 %',
  confirm: 'A limit this low leaves nothing for a heavier load or a low supply.',
  example: {
    circuit: exampleCircuit,
    inertiaKgm2: 1,
    load: { kind: 'square', torqueNm: 150, ratedRpm: 1480 },
    start: { kind: 'currentLimit', limitA: 1 },
    withinS: 20,
  },
  run: (asked) => {
    if (asked.tripClass && asked.ratedA === undefined)
      throw new CalculationError('ratedA', 'ratedA is missing: the class counts in it');
    if (asked.start.kind !== 'currentLimit' && asked.start.kind !== 'rampAndLimit')
      throw new CalculationError('start.kind', 'start.kind is currentLimit or rampAndLimit');
    const { circuit, inertiaKgm2, load, start } = asked;
    const direct = motorAt(circuit, 1).statorA;
    const full = runUpOf(circuit, inertiaKgm2, load, { kind: 'direct' });
    const goal = (REACHED * full.fullVoltageRpm * Math.PI) / 30;
    const none = { limitA: null, marginPct: null, startS: null };
    if (!does(asked, goal, direct))
      return { ...none, reason: 'a direct start does not do it either' };
    let [low, high] = [direct / 50, direct];
    while (high / low > 1 + PRECISION) {
      const middle = Math.sqrt(low * high);
      if (does(asked, goal, middle)) high = middle;
      else low = middle;
    }
    const run = runUpOf(circuit, inertiaKgm2, load, { ...start, limitA: high }, start);
    const turning = run.curve.filter(
      (p) => p.rpm > 0 && p.rpm < 0.95 * run.fullVoltageRpm && p.voltageFraction < 1,
    );
    const margins = turning.flatMap((p) => (p.loadNm > 0 ? 100 * (p.torqueNm / p.loadNm - 1) : []));
    return {
      limitA: high,
      marginPct: margins.length > 0 ? Math.min(...margins) : null,
      startS: run.startS,
      reason: '',
    };
  },
});
