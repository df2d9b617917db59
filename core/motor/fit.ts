import { polePairsOf } from './plate-speed.js';
import { calculation, CalculationError, positive, result } from '../calculation/index.js';
import { leastSquares } from '../numeric/index.js';
import { breakdownSlip, motorAt, type MotorCircuit } from './circuit.js';

/** What a plate and a data sheet say, as the circuit is fitted to it. */
export interface FitPlate {
  readonly powerKw: number;
  readonly lineV: number;
  readonly hz: number;
  readonly rpm: number;
  readonly currentA: number;
  readonly powerFactor: number;
  readonly efficiency: number;
  readonly lockedCurrentRatio: number;
  readonly lockedTorqueRatio: number;
  readonly breakdownRatio: number;
  readonly pullUpRatio?: number;
}

/** Pull-up torque in starting torque where no data sheet gives it; IEC 60034-12 and NEMA MG 1 ask for 0.5 to 0.8 at least. */
export const PULL_UP_SHARE = 0.75;

/** How fast the rotor's resistance falls from standstill: chosen so that the run-ups of known drives at a limited current come out. */
const BAR_EXPONENT = 3;

/** Pull towards usual proportions where the plate leaves the circuit open; far below any condition of the plate. */
const PRIOR = 1e-4;

/** Distance from the plate below which no other start is tried. */
const GOOD = 0.01;

/** Weight of each condition: the rated point first, an assumed pull-up torque last. */
const weights: Readonly<Record<string, number>> = {
  torque: 2,
  current: 2,
  powerFactor: 2,
  pullUp: 0.45,
};

const names = [
  'statorOhm',
  'statorLeakageOhm',
  'magnetisingOhm',
  'coreOhm',
  'rotorOhm',
  'rotorLeakageOhm',
  'lockedRotorOhm',
  'lockedRotorLeakageOhm',
] as const;

/** Usual proportions of a cage motor in its base impedance, at rated slip s. */
const usual = (slip: number): readonly number[] => [
  0.03,
  0.07,
  2,
  40,
  slip * 0.95,
  0.12,
  0.04,
  0.05,
  0.25,
];

/** What the circuit gives against what the plate says, as shares: 0 everywhere is a perfect fit. */
export function fitErrors(c: MotorCircuit, plate: FitPlate): Record<string, number> {
  const { slip, torqueNm } = ratedOf(plate);
  const rated = motorAt(c, slip);
  const locked = motorAt(c, 1);
  const topSlip = breakdownSlip(c, c.lineV, c.hz, 30, 1e-5);
  const top = motorAt(c, topSlip);
  return {
    torque: rated.torqueNm / torqueNm - 1,
    current: rated.statorA / plate.currentA - 1,
    powerFactor: rated.powerFactor / plate.powerFactor - 1,
    lockedCurrent: locked.statorA / (plate.lockedCurrentRatio * plate.currentA) - 1,
    lockedTorque: locked.torqueNm / (plate.lockedTorqueRatio * torqueNm) - 1,
    breakdown: top.torqueNm / (plate.breakdownRatio * torqueNm) - 1,
    pullUp:
      pullUpTorque(c, topSlip) /
        ((plate.pullUpRatio ?? PULL_UP_SHARE * plate.lockedTorqueRatio) * torqueNm) -
      1,
  };
}

/** Least torque between standstill and breakdown. */
function pullUpTorque(c: MotorCircuit, topSlip: number): number {
  const lowest = Math.log(topSlip);
  let least = Infinity;
  for (let i = 0; i <= 16; i++)
    least = Math.min(least, motorAt(c, Math.exp((lowest * i) / 16)).torqueNm);
  return least;
}

function ratedOf(plate: FitPlate): { poles: number; slip: number; torqueNm: number } {
  const pairs = polePairsOf(plate.hz, plate.rpm);
  if (pairs === undefined)
    throw new CalculationError(
      'plate.rpm',
      `plate.rpm must be below ${60 * plate.hz} rpm, the speed of the field`,
    );
  const slip = 1 - (plate.rpm * pairs) / (60 * plate.hz);
  if (slip <= 0)
    throw new CalculationError(
      'plate.rpm',
      `plate.rpm must be below ${(60 * plate.hz) / pairs} rpm, the speed of the field`,
    );
  return {
    poles: 2 * pairs,
    slip,
    torqueNm: (plate.powerKw * 1000) / ((2 * Math.PI * plate.rpm) / 60),
  };
}

/**
 * Fits a deep-bar circuit to rated point, locked current and torque, breakdown and pull-up torque.
 *
 * Levenberg–Marquardt on the logarithms of the elements, from several usual rotors; where the plate leaves freedom
 * the circuit nearest to usual proportions is taken. A pull-up torque that is not given is assumed and weighs least.
 *
 * @throws CalculationError when the speed is not below that of the field
 * @example fitCircuit(plate).errors.lockedTorque // 0.0001
 */
export function fitCircuit(plate: FitPlate): {
  circuit: MotorCircuit;
  errors: Record<string, number>;
} {
  const { poles, slip } = ratedOf(plate);
  const base = plate.lineV / (Math.sqrt(3) * plate.currentA);
  const prior = usual(slip);
  const circuitOf = (at: readonly number[]): MotorCircuit => {
    const values = Object.fromEntries(names.map((name, i) => [name, Math.exp(at[i]) * base]));
    return {
      lineV: plate.lineV,
      hz: plate.hz,
      poles,
      ...values,
      barExponent: BAR_EXPONENT,
      saturationExponent: Math.exp(at[8]),
    } as unknown as MotorCircuit;
  };
  const residuals = (at: readonly number[]): number[] => [
    ...Object.entries(fitErrors(circuitOf(at), plate)).map(
      ([name, error]) => error * (weights[name] ?? 1),
    ),
    ...at.map((x, i) => (i === 8 ? 30 : 1) * PRIOR * (x - Math.log(prior[i]))),
  ];
  const starts = [1, 8, 40].map((k) => prior.map((x, i) => Math.log(i === 8 ? x * k : x)));
  let best = leastSquares(residuals, starts[0], 60);
  for (const start of starts.slice(1)) {
    if (best.norm < GOOD) break;
    const next = leastSquares(residuals, start, 60);
    if (next.norm < best.norm) best = next;
  }
  const circuit = circuitOf(best.at);
  return { circuit, errors: fitErrors(circuit, plate) };
}

/** Ratios a catalogue gives for motors of this size where the data sheet is missing; said wherever they are used. */
export function usualRatios(powerKw: number): {
  lockedCurrentRatio: number;
  lockedTorqueRatio: number;
  breakdownRatio: number;
} {
  const table = [
    [0.37, 4.6, 2.3, 2.6],
    [0.75, 5.3, 2.4, 2.8],
    [1.5, 6.3, 2.5, 3],
    [4, 7, 2.4, 3],
    [11, 7.3, 2.3, 2.9],
    [37, 7.1, 2.2, 2.7],
    [110, 7, 2, 2.6],
  ];
  const row = table.find(([kw]) => powerKw <= kw) ?? table[table.length - 1];
  return { lockedCurrentRatio: row[1], lockedTorqueRatio: row[2], breakdownRatio: row[3] };
}

/** Equivalent circuit of a motor from its plate and data sheet. */
export const fitMotor = calculation<
  { plate: FitPlate },
  { circuit: Record<string, unknown>; errors: Record<string, number>; worstErrorPct: number }
>({
  name: 'fitMotor',
  title: 'Equivalent circuit from the plate',
  args: {
    plate: {
      title: 'plate and data sheet',
      unit: '',
      kind: 'record',
      fields: {
        powerKw: positive('power', 'kW', 10_000),
        lineV: positive('voltage', 'V', 15_000),
        hz: positive('frequency', 'Hz', 400),
        rpm: positive('speed', 'rpm', 24_000),
        currentA: positive('current', 'A', 10_000),
        powerFactor: positive('power factor', '', 1),
        efficiency: positive('efficiency', '', 1),
        lockedCurrentRatio: positive('I_A/I_N', '', 15),
        lockedTorqueRatio: positive('T_A/T_N', '', 10),
        breakdownRatio: positive('T_K/T_N', '', 10),
        pullUpRatio: positive('least torque on the way up, in T_N', '', 10, { optional: true }),
      },
    },
  },
  results: {
    circuit: result('circuit'),
    errors: result('distance from the plate, as shares'),
    worstErrorPct: result('worst of them', '%'),
  },
  formula:
    'rated torque, current and power factor; locked current and torque; breakdown and pull-up torque; weighted least squares',
  source:
    'IEEE Std 112 equivalent circuit with slip-dependent rotor; Marquardt, SIAM J. Appl. Math. 11 (1963); pull-up share after IEC 60034-12',
  confirm: 'A data sheet’s ratios carry tolerances of up to 20 % (IEC 60034-1).',
  example: {
    plate: {
      powerKw: 37,
      lineV: 400,
      hz: 50,
      rpm: 1480,
      currentA: 66.8,
      powerFactor: 0.85,
      efficiency: 0.94,
      lockedCurrentRatio: 7.1,
      lockedTorqueRatio: 2.2,
      breakdownRatio: 2.7,
    },
  },
  run: ({ plate }) => {
    const inputKw = (Math.sqrt(3) * plate.lineV * plate.currentA * plate.powerFactor) / 1000;
    const apart = Math.abs(plate.powerKw / plate.efficiency / inputKw - 1);
    if (apart > 0.15)
      throw new CalculationError(
        'plate.currentA',
        `plate.currentA and power disagree by ${(100 * apart).toFixed(0)} %; at most 15 %`,
      );
    if (plate.breakdownRatio <= 1)
      throw new CalculationError('plate.breakdownRatio', 'plate.breakdownRatio must be above 1');
    const { circuit, errors } = fitCircuit(plate);
    return {
      circuit: { ...circuit },
      errors,
      worstErrorPct: 100 * Math.max(...Object.values(errors).map(Math.abs)),
    };
  },
});
