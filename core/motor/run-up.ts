import {
  between,
  calculation,
  CalculationError,
  choice,
  positive,
  result,
  upTo,
  type ArgumentSpec,
} from '../calculation/index.js';
import {
  circuitArgument,
  exampleCircuit,
  loadSlip,
  motorAt,
  synchronousRad,
  type MotorCircuit,
} from './circuit.js';
import { loadTorque, type LoadCurve } from './load-curve.js';
import type { AtFull, StartWay } from './start-way.js';
import { runAtVoltage, type Driven, type RunPoint, type VoltageRun } from './voltage-run.js';

/** One moment of a run-up as it is shown: since the voltage came on, s. */
export interface RunUpPoint {
  readonly t: number;
  readonly rpm: number;
  readonly torqueNm: number;
  readonly loadNm: number;
  readonly amps: number;
  readonly voltageFraction: number;
}

/** A run-up; what does not exist is null. Currents and I²t count from the moment voltage is on, standstill included. */
export interface RunUpResult {
  readonly stalls: boolean;
  /** To 95 % of the speed that full voltage reaches, s. */
  readonly startS: number | null;
  readonly breakawayS: number | null;
  readonly peakA: number;
  readonly rmsA: number;
  readonly i2tA2s: number;
  readonly initialTorqueNm: number;
  readonly initialA: number;
  /** Speed that full voltage reaches. */
  readonly fullVoltageRpm: number;
  /** Speed at which this start leaves the shaft; 0 where it never moves. */
  readonly finalRpm: number;
  /** End of the start: full voltage, and the current below the bypass's. */
  readonly fullAtS: number | null;
  readonly curve: RunUpPoint[];
}

/** Speed counted as reached, of that at full voltage. */
export const REACHED = 0.95;

const toRpm = (rad: number): number => (rad * 60) / (2 * Math.PI);

/** A circuit with its load as what a voltage drives. */
export function drivenBy(
  circuit: MotorCircuit,
  inertiaKgm2: number,
  load: LoadCurve,
  ratedNm: number,
): Driven {
  const fieldRad = synchronousRad(circuit);
  const at = (rad: number): AtFull => {
    const slip = Math.min(1, Math.max(1e-6, 1 - rad / fieldRad));
    const { torqueNm, statorA } = motorAt(circuit, slip);
    return { torqueNm, amps: statorA };
  };
  return { fieldRad, ratedNm, inertiaKgm2, load, at };
}

/** Speed in rad/s at which full voltage carries the load; undefined where it does not. */
function fullSpeed(circuit: MotorCircuit, load: LoadCurve): number | undefined {
  const slip = loadSlip(circuit, loadTorque(load));
  return slip === undefined ? undefined : synchronousRad(circuit) * (1 - slip);
}

/**
 * Runs a motor up from standstill and sums the run up.
 *
 * @param more rated torque for a torque ramp, current of the bypass, and a share of the longest step, for tests
 * @throws CalculationError where the load is above the breakdown torque
 */
export function runUpOf(
  circuit: MotorCircuit,
  inertiaKgm2: number,
  load: LoadCurve,
  start: StartWay,
  more: { stepShare?: number; ratedTorqueNm?: number; bypassA?: number } = {},
): RunUpResult {
  const fullRad = fullSpeed(circuit, load);
  if (fullRad === undefined)
    throw new CalculationError(
      'load',
      'load is above the breakdown torque: the motor cannot carry it at full voltage',
    );
  const driven = drivenBy(circuit, inertiaKgm2, load, more.ratedTorqueNm ?? 0);
  const run = runAtVoltage(driven, start, { stepShare: more.stepShare, fullBelowA: more.bypassA });
  return summaryOf(run, fullRad, more.bypassA);
}

/**
 * Sums a run up: time to 95 % of the speed at full voltage, currents until then.
 *
 * @param bypassA current below which a bypass closes
 */
export function summaryOf(run: VoltageRun, fullRad: number, bypassA?: number): RunUpResult {
  const { points } = run;
  const goal = REACHED * fullRad;
  const at = points.findIndex((p) => p.rad >= goal);
  const [last] = points.slice(-1);
  const end = at > 0 ? crossing(points[at - 1], points[at], goal) : { t: last.t, i2t: last.i2t };
  const counted = at > 0 ? points.slice(0, at) : points;
  const bypassed = points.find((p) => p.share >= 1 - 1e-9 && p.amps <= (bypassA ?? Infinity));
  const every = Math.max(1, Math.floor(points.length / 160));
  return {
    stalls: at < 0,
    startS: at < 0 ? null : end.t,
    breakawayS: run.breaksS,
    peakA: Math.max(...counted.map((p) => p.amps)),
    rmsA: end.t > 0 ? Math.sqrt(end.i2t / end.t) : points[0].amps,
    i2tA2s: end.i2t,
    initialTorqueNm: points[0].torqueNm,
    initialA: points[0].amps,
    fullVoltageRpm: toRpm(fullRad),
    finalRpm: toRpm(Math.max(0, last.rad)),
    fullAtS: bypassed?.t ?? null,
    curve: points
      .filter((_, i) => i % every === 0 || i === points.length - 1 || i === at)
      .map(({ t, rad, torqueNm, loadNm, amps, share }) => ({
        t,
        rpm: toRpm(rad),
        torqueNm,
        loadNm,
        amps,
        voltageFraction: share,
      })),
  };
}

/** The moment between two points at which a speed is reached. */
function crossing(a: RunPoint, b: RunPoint, rad: number): { t: number; i2t: number } {
  const part = (rad - a.rad) / (b.rad - a.rad);
  return { t: a.t + part * (b.t - a.t), i2t: a.i2t + part * (b.i2t - a.i2t) };
}

/** A load over speed as an argument of a calculation. */
export const loadArgument: ArgumentSpec = {
  title: 'load',
  unit: '',
  kind: 'record',
  fields: {
    kind: choice('torque over speed', ['constant', 'linear', 'square', 'table', 'overhauling']),
    torqueNm: upTo('torque', 'Nm', 1e7, { optional: true }),
    ratedRpm: positive('at', 'rpm', 60_000, { optional: true }),
    constantNm: upTo('torque at every speed', 'Nm', 1e7, { optional: true }),
    breakawayNm: upTo('to break loose', 'Nm', 1e7, { optional: true }),
    table: {
      title: 'table',
      unit: '',
      kind: 'records',
      items: [2, 500],
      optional: true,
      fields: { rpm: upTo('speed', 'rpm', 60_000), torqueNm: upTo('torque', 'Nm', 1e7) },
    },
  },
};

/** A way to start as an argument of a calculation. */
export const startArgument: ArgumentSpec = {
  title: 'start',
  unit: '',
  kind: 'record',
  fields: {
    kind: choice('how', [
      'direct',
      'fixedVoltage',
      'voltageRamp',
      'currentLimit',
      'rampAndLimit',
      'torqueRamp',
    ]),
    fraction: between('of full voltage at first', '', 0.05, 1, { optional: true }),
    rampS: positive('ramp', 's', 300, { optional: true }),
    limitA: positive('current limit', 'A', 1e5, { optional: true }),
    kickFraction: between('boost, of full voltage', '', 0.05, 1, { optional: true }),
    kickS: upTo('boost for', 's', 10, { optional: true }),
    initialTorquePct: upTo('torque at first', '%', 400, { optional: true }),
    torqueLimitPct: positive('torque at most', '%', 400, { optional: true }),
    ratedTorqueNm: positive('rated torque', 'Nm', 1e7, { optional: true }),
    bypassA: positive('bypass closes below', 'A', 1e5, { optional: true }),
  },
};

type StartArgument = StartWay & { readonly ratedTorqueNm?: number; readonly bypassA?: number };

const needed: Readonly<Record<StartWay['kind'], readonly (keyof StartArgument)[]>> = {
  direct: [],
  fixedVoltage: ['fraction'],
  voltageRamp: ['fraction', 'rampS'],
  currentLimit: ['limitA'],
  rampAndLimit: ['fraction', 'rampS', 'limitA'],
  torqueRamp: ['rampS', 'ratedTorqueNm'],
};

/** Run-up of a motor with its load, direct or through a soft start. */
export const runUp = calculation<
  { circuit: MotorCircuit; inertiaKgm2: number; load: LoadCurve; start: StartArgument },
  RunUpResult
>({
  name: 'runUp',
  title: 'Run-up',
  args: {
    circuit: circuitArgument,
    inertiaKgm2: positive('inertia at the motor', 'kg·m²', 1e5),
    load: loadArgument,
    start: startArgument,
  },
  results: {
    stalls: result('stalls'),
    startS: result('time to 95 % of the speed at full voltage', 's'),
    breakawayS: result('breaks loose after', 's'),
    peakA: result('largest current', 'A'),
    rmsA: result('current, root mean square', 'A'),
    i2tA2s: result('I²t', 'A²s'),
    initialTorqueNm: result('torque at first', 'Nm'),
    initialA: result('current at first', 'A'),
    fullVoltageRpm: result('speed that full voltage reaches', 'rpm'),
    finalRpm: result('speed at which it is left', 'rpm'),
    fullAtS: result('full voltage, and the current below the bypass', 's'),
    curve: result('time, speed, torque, load, current'),
  },
  formula: 'J·dω/dt = T_e(s)·(U/U_N)² − T_L(ω)',
  source: 'equation of motion; Dormand and Prince 5(4) with steps fitted to 1e-6',
  confirm: 'Temperature, supply dip and the tolerance of the data sheet move it by a fifth.',
  example: {
    circuit: exampleCircuit,
    inertiaKgm2: 1,
    load: { kind: 'square', torqueNm: 150, ratedRpm: 1480 },
    start: { kind: 'direct' },
  },
  run: ({ circuit, inertiaKgm2, load, start }) => {
    for (const name of needed[start.kind])
      if (start[name] === undefined)
        throw new CalculationError(
          `start.${name}`,
          `start.${name} is missing: this start needs it`,
        );
    if (load.kind === 'table' && !load.table)
      throw new CalculationError('load.table', 'load.table is missing');
    if (load.kind !== 'table' && load.torqueNm === undefined)
      throw new CalculationError('load.torqueNm', 'load.torqueNm is missing');
    if ((load.kind === 'linear' || load.kind === 'square') && load.ratedRpm === undefined)
      throw new CalculationError('load.ratedRpm', 'load.ratedRpm is missing');
    if (load.table?.some((row, i, all) => i > 0 && row.rpm <= all[i - 1].rpm))
      throw new CalculationError('load.table', 'load.table must rise in speed');
    const { ratedTorqueNm, bypassA, ...way } = start;
    return runUpOf(circuit, inertiaKgm2, load, way, { ratedTorqueNm, bypassA });
  },
});
