import { between, calculation, positive, result } from '../calculation/index.js';

/** Points of the derating curve for unbalanced supplies. */
const unbalancePoints: readonly (readonly [number, number])[] = [
  [0, 1],
  [1, 1],
  [2, 0.95],
  [3, 0.88],
  [4, 0.82],
  [5, 0.75],
];

/**
 * Share of its rating that a motor may give on an unbalanced supply.
 *
 * @example unbalanceDerating.run({ unbalancePct: 2.5 }).factor // 0.915
 */
export const unbalanceDerating = calculation<{ unbalancePct: number }, { factor: number }>({
  name: 'unbalanceDerating',
  title: 'Derating for unbalance',
  args: { unbalancePct: between('unbalance; above 5 % the motor must not run', '%', 0, 5) },
  results: { factor: result('share of the rating') },
  formula: 'curve: 1 at 1 %, 0.95 at 2 %, 0.88 at 3 %, 0.82 at 4 %, 0.75 at 5 %; straight between',
  source: 'NEMA MG 1 figure 14-1',
  example: { unbalancePct: 2.5 },
  run: ({ unbalancePct }) => {
    const at = unbalancePoints.findIndex(([x]) => x >= unbalancePct);
    if (at <= 0) return { factor: 1 };
    const [[x0, y0], [x1, y1]] = [unbalancePoints[at - 1], unbalancePoints[at]];
    return { factor: y0 + ((unbalancePct - x0) / (x1 - x0)) * (y1 - y0) };
  },
});

/** A three-phase drive fed from one phase: the same power through two conductors. */
export const singlePhaseFeed = calculation<
  { threePhaseInputA: number },
  { singlePhaseInputA: number; outputFactor: number }
>({
  name: 'singlePhaseFeed',
  title: 'Three-phase drive on one phase',
  args: { threePhaseInputA: positive('input current on three phases', 'A', 10_000) },
  results: {
    singlePhaseInputA: result('input current for the same power', 'A'),
    outputFactor: result('share of the output if the input may carry no more'),
  },
  formula: 'I_1 = √3·I_3;  share = 1/√3',
  source:
    'S = √3·U·I on three phases, U·I on one; the ripple of the link often allows 50 % or less',
  confirm: 'The maker’s rating for single-phase feed; without one the drive must not be fed so.',
  example: { threePhaseInputA: 10 },
  run: ({ threePhaseInputA }) => ({
    singlePhaseInputA: Math.sqrt(3) * threePhaseInputA,
    outputFactor: 1 / Math.sqrt(3),
  }),
});

/** What the input current of a drive follows from. */
export const inputCurrentArguments = {
  outputKw: positive('shaft power', 'kW', 1000),
  supplyV: positive('supply', 'V', 1000),
  motorEfficiency: positive('efficiency of the motor', '', 1),
  driveEfficiency: positive('efficiency of the drive', '', 1),
  truePowerFactor: positive('true power factor; on one phase 0.6 to 0.7 without a choke', '', 1),
};

/**
 * Input current of a drive fed from one phase.
 *
 * @example singlePhaseInputCurrent.run({ outputKw: 0.75, supplyV: 230, motorEfficiency: 0.826, driveEfficiency: 0.95, truePowerFactor: 0.65 }).currentA // 6.39
 */
export const singlePhaseInputCurrent = calculation<
  {
    outputKw: number;
    supplyV: number;
    motorEfficiency: number;
    driveEfficiency: number;
    truePowerFactor: number;
  },
  { currentA: number }
>({
  name: 'singlePhaseInputCurrent',
  title: 'Input current on one phase',
  args: inputCurrentArguments,
  results: { currentA: result('input current', 'A') },
  formula: 'I = P/(η_m·η_d·U·λ)',
  source: 'definition of the true power factor; λ of a bridge with capacitor and no choke',
  confirm: 'Cable and protective device follow the input current, not the motor’s.',
  example: {
    outputKw: 0.75,
    supplyV: 230,
    motorEfficiency: 0.826,
    driveEfficiency: 0.95,
    truePowerFactor: 0.63,
  },
  run: (a) => ({
    currentA:
      (a.outputKw * 1000) / (a.motorEfficiency * a.driveEfficiency * a.supplyV * a.truePowerFactor),
  }),
});

/**
 * Dip of the supply while a motor starts, by three rules of rising care.
 *
 * @example startDip.run({ sourceKVA: 250, sourceZPct: 4, motorKw: 37, efficiency: 0.94, powerFactor: 0.85, startMultiple: 7.1, startPowerFactor: 0.3 }).dipSimplePct // 5.26
 */
export const startDip = calculation<
  {
    sourceKVA: number;
    sourceZPct: number;
    motorKw: number;
    efficiency: number;
    powerFactor: number;
    startMultiple: number;
    startPowerFactor: number;
  },
  {
    shortCircuitKVA: number;
    startKVA: number;
    dipSimplePct: number;
    dipDividerPct: number;
    dipPhasorPct: number;
  }
>({
  name: 'startDip',
  title: 'Supply dip at a start',
  args: {
    sourceKVA: positive('transformer', 'kVA', 1e6),
    sourceZPct: positive('impedance', '%', 30),
    motorKw: positive('motor', 'kW', 10_000),
    efficiency: positive('efficiency', '', 1),
    powerFactor: positive('power factor', '', 1),
    startMultiple: positive('start current in rated current', '', 15),
    startPowerFactor: between('power factor while starting', '', 0, 1, { fallback: 0.3 }),
  },
  results: {
    shortCircuitKVA: result('short-circuit power', 'kVA'),
    startKVA: result('drawn at the start', 'kVA'),
    dipSimplePct: result('dip, simple ratio', '%'),
    dipDividerPct: result('dip, as a divider', '%'),
    dipPhasorPct: result('dip, with phase angles', '%'),
  },
  formula:
    'S_sc = S/z;  ΔU ≈ S_start/S_sc;  divider S_start/(S_start + S_sc);  phasors 1 − |Z_m/(Z_m + j·X)|',
  source: 'IEC 60364-5-52 for limits; source taken as a reactance',
  confirm: 'The network behind the transformer and other loads are not counted.',
  example: {
    sourceKVA: 250,
    sourceZPct: 4,
    motorKw: 37,
    efficiency: 0.94,
    powerFactor: 0.85,
    startMultiple: 7.1,
  },
  run: (a) => {
    const shortCircuitKVA = (100 * a.sourceKVA) / a.sourceZPct;
    const startKVA = (a.motorKw * a.startMultiple) / (a.efficiency * a.powerFactor);
    const z = 1 / startKVA;
    const r = z * a.startPowerFactor;
    const x = z * Math.sqrt(1 - a.startPowerFactor ** 2);
    return {
      shortCircuitKVA,
      startKVA,
      dipSimplePct: (100 * startKVA) / shortCircuitKVA,
      dipDividerPct: (100 * startKVA) / (startKVA + shortCircuitKVA),
      dipPhasorPct: 100 * (1 - z / Math.hypot(r, x + 1 / shortCircuitKVA)),
    };
  },
});
