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
import { integrate } from '../numeric/index.js';
import {
  circuitArgument,
  loadSlip,
  motorAt,
  synchronousRad,
  type MotorCircuit,
} from './circuit.js';

/** Load torque over speed: `baseNm` always, and on top `torqueNm` at `ratedRpm` with the law named, or a table. */
export interface LoadCurve {
  readonly kind: 'constant' | 'linear' | 'square' | 'table';
  readonly torqueNm?: number;
  readonly ratedRpm?: number;
  readonly baseNm?: number;
  /** Torque to break loose from standstill, where it is more. */
  readonly breakawayNm?: number;
  readonly table?: readonly { readonly rpm: number; readonly torqueNm: number }[];
}

/** How the voltage comes on. */
export interface StartWay {
  readonly kind:
    'direct' | 'fixedVoltage' | 'voltageRamp' | 'currentLimit' | 'rampAndLimit' | 'torqueRamp';
  readonly fraction?: number;
  readonly rampS?: number;
  readonly limitA?: number;
  readonly torqueNm?: number;
  readonly endTorqueNm?: number;
}

export interface RunUpPoint {
  readonly t: number;
  readonly rpm: number;
  readonly torqueNm: number;
  readonly loadNm: number;
  readonly amps: number;
  readonly voltageFraction: number;
}

export interface RunUpResult {
  readonly stalls: boolean;
  readonly startS: number | null;
  readonly breakawayS: number | null;
  readonly peakA: number;
  readonly rmsA: number;
  readonly i2tA2s: number;
  readonly initialTorqueNm: number;
  readonly initialA: number;
  readonly finalRpm: number;
  readonly curve: RunUpPoint[];
}

/** A start that takes longer than this has stalled for every purpose, s. */
const LONGEST_START_S = 300;

const toRad = (rpm: number): number => (rpm * 2 * Math.PI) / 60;
const toRpm = (rad: number): number => (rad * 60) / (2 * Math.PI);

/** Load torque at a speed in rad/s, turning. */
export function loadTorque(load: LoadCurve): (rad: number) => number {
  const base = load.baseNm ?? 0;
  if (load.kind === 'table') {
    const rows = load.table ?? [];
    return (rad) => base + interpolate(rows, toRpm(rad));
  }
  const power = { constant: 0, linear: 1, square: 2 }[load.kind];
  const rated = toRad(load.ratedRpm ?? 1);
  return (rad) =>
    base + (load.torqueNm ?? 0) * (power === 0 ? 1 : (Math.max(0, rad) / rated) ** power);
}

function interpolate(rows: readonly { rpm: number; torqueNm: number }[], rpm: number): number {
  const at = rows.findIndex((r) => r.rpm >= rpm);
  if (at === 0) return rows[0].torqueNm;
  if (at < 0) return rows[rows.length - 1].torqueNm;
  const [a, b] = [rows[at - 1], rows[at]];
  return a.torqueNm + ((rpm - a.rpm) / (b.rpm - a.rpm)) * (b.torqueNm - a.torqueNm);
}

/** Share of full voltage at a time and slip; the circuit is linear, so current follows it and torque its square. */
function voltageFraction(
  start: StartWay,
  t: number,
  full: { statorA: number; torqueNm: number },
): number {
  const ramp = (from: number, to: number): number =>
    from + (to - from) * Math.min(1, t / (start.rampS ?? 1));
  const limited = start.limitA === undefined ? 1 : start.limitA / full.statorA;
  switch (start.kind) {
    case 'direct':
      return 1;
    case 'fixedVoltage':
      return start.fraction ?? 1;
    case 'voltageRamp':
      return ramp(start.fraction ?? 0, 1);
    case 'currentLimit':
      return Math.min(1, limited);
    case 'rampAndLimit':
      return Math.min(ramp(start.fraction ?? 0, 1), limited);
    case 'torqueRamp':
      return Math.min(
        1,
        limited,
        Math.sqrt(ramp(start.torqueNm ?? 0, start.endTorqueNm ?? 0) / full.torqueNm),
      );
  }
}

/**
 * Runs a motor up from standstill: J·dω/dt = T_e − T_L, integrated with steps fitted to 1e-6.
 *
 * @param stepShare shortens the longest step, for tests
 */
export function runUpOf(
  circuit: MotorCircuit,
  inertiaKgm2: number,
  load: LoadCurve,
  start: StartWay,
  stepShare = 1,
): RunUpResult {
  const field = synchronousRad(circuit);
  const loadAt = loadTorque(load);
  const fullSlip = loadSlip(circuit, loadAt);
  if (fullSlip === undefined)
    throw new CalculationError(
      'load',
      'load is above the breakdown torque: the motor cannot carry it at full voltage',
    );
  const goal = 0.95 * field * (1 - fullSlip);
  const at = (t: number, w: number): RunUpPoint => {
    const full = motorAt(circuit, Math.max(1e-6, 1 - w / field));
    const fraction = voltageFraction(start, t, full);
    const loadNm = w <= 1e-9 ? Math.max(load.breakawayNm ?? 0, loadAt(0)) : loadAt(w);
    return {
      t,
      rpm: toRpm(w),
      torqueNm: full.torqueNm * fraction ** 2,
      loadNm,
      amps: full.statorA * fraction,
      voltageFraction: fraction,
    };
  };
  const rate = (t: number, [w]: readonly number[]): number[] => {
    const p = at(t, Math.max(0, w));
    const spare = p.torqueNm - p.loadNm;
    return [w <= 1e-9 && spare < 0 ? 0 : spare / inertiaKgm2, p.amps ** 2];
  };
  const ramping = (t: number): boolean => t < (start.rampS ?? 0);
  const stuck = (t: number, y: readonly number[]): boolean =>
    !ramping(t) && rate(t, y)[0] < field / 2000;
  const steps = integrate(rate, [0, 0], {
    end: LONGEST_START_S,
    scale: [field, (circuit.lineV / Math.sqrt(3) / circuit.statorLeakageOhm) ** 2],
    tolerance: 1e-6,
    longest: 0.25 * stepShare,
    until: ({ t, y }) => y[0] >= goal || stuck(t, y),
  });
  const points = steps.map(({ t, y }) => at(t, y[0]));
  return summary(steps, points, goal, toRpm(field * (1 - fullSlip)));
}

function summary(
  steps: readonly { t: number; y: readonly number[] }[],
  points: readonly RunUpPoint[],
  goal: number,
  finalRpm: number,
): RunUpResult {
  const last = steps[steps.length - 1];
  const stalls = last.y[0] < goal;
  const before = steps[steps.length - 2];
  const share = stalls ? 1 : (goal - before.y[0]) / (last.y[0] - before.y[0]);
  const endS = before ? before.t + share * (last.t - before.t) : 0;
  const i2tA2s = before ? before.y[1] + share * (last.y[1] - before.y[1]) : 0;
  const loose = points.find((p) => p.rpm > 1e-6);
  const every = Math.max(1, Math.floor(points.length / 160));
  return {
    stalls,
    startS: stalls ? null : endS,
    breakawayS: loose ? points[Math.max(0, points.indexOf(loose) - 1)].t : null,
    peakA: Math.max(...points.map((p) => p.amps)),
    rmsA: endS > 0 ? Math.sqrt(i2tA2s / endS) : points[0].amps,
    i2tA2s,
    initialTorqueNm: points[0].torqueNm,
    initialA: points[0].amps,
    finalRpm,
    curve: points.filter((_, i) => i % every === 0 || i === points.length - 1),
  };
}

const loadArgument: ArgumentSpec = {
  title: 'load',
  unit: '',
  kind: 'record',
  fields: {
    kind: choice('torque over speed', ['constant', 'linear', 'square', 'table']),
    torqueNm: upTo('torque', 'Nm', 1e7, { optional: true }),
    ratedRpm: positive('at', 'rpm', 60_000, { optional: true }),
    baseNm: upTo('torque at every speed', 'Nm', 1e7, { optional: true }),
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

const startArgument: ArgumentSpec = {
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
    torqueNm: upTo('torque at first', 'Nm', 1e7, { optional: true }),
    endTorqueNm: positive('torque at the end of the ramp', 'Nm', 1e7, { optional: true }),
  },
};

const needed: Readonly<Record<StartWay['kind'], readonly (keyof StartWay)[]>> = {
  direct: [],
  fixedVoltage: ['fraction'],
  voltageRamp: ['fraction', 'rampS'],
  currentLimit: ['limitA'],
  rampAndLimit: ['fraction', 'rampS', 'limitA'],
  torqueRamp: ['torqueNm', 'endTorqueNm', 'rampS'],
};

/** Run-up of a motor with its load, direct or through a soft start. */
export const runUp = calculation<
  { circuit: MotorCircuit; inertiaKgm2: number; load: LoadCurve; start: StartWay },
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
    startS: result('time to 95 % of the final speed', 's'),
    breakawayS: result('breaks loose after', 's'),
    peakA: result('largest current', 'A'),
    rmsA: result('current, root mean square', 'A'),
    i2tA2s: result('I²t', 'A²s'),
    initialTorqueNm: result('torque at first', 'Nm'),
    initialA: result('current at first', 'A'),
    finalRpm: result('final speed at full voltage', 'rpm'),
    curve: result('time, speed, torque, load, current'),
  },
  formula: 'J·dω/dt = T_e(s)·(U/U_N)² − T_L(ω)',
  source: 'equation of motion; Dormand and Prince 5(4) with steps fitted to 1e-6',
  confirm: 'Temperature, supply dip and the tolerance of the data sheet move it by a fifth.',
  example: {
    circuit: {
      lineV: 400,
      hz: 50,
      poles: 4,
      statorOhm: 0.1,
      statorLeakageOhm: 0.25,
      magnetisingOhm: 8,
      rotorLeakageOhm: 0.25,
      rotorOhm: 0.09,
    },
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
    return runUpOf(circuit, inertiaKgm2, load, start);
  },
});
