import {
  between,
  calculation,
  CalculationError,
  positive,
  result,
  upTo,
} from '../calculation/index.js';
import {
  breakdownSlip,
  circuitArgument,
  loadSlip,
  motorAt,
  type MotorCircuit,
  type MotorPoint,
} from './circuit.js';

const lineV = positive('line voltage, if not the circuit’s', 'V', 15_000, { optional: true });
const hz = positive('frequency, if not the circuit’s', 'Hz', 400, { optional: true });
const source = 'IEEE Std 112 equivalent circuit';
const example: MotorCircuit = {
  lineV: 460,
  hz: 60,
  poles: 4,
  statorOhm: 0.641,
  statorLeakageOhm: 1.106,
  magnetisingOhm: 26.3,
  rotorLeakageOhm: 0.464,
  rotorOhm: 0.332,
};

/** Torque, current and powers at a slip. */
export const motorPoint = calculation<
  { circuit: MotorCircuit; lineV?: number; hz?: number; slip: number },
  MotorPoint
>({
  name: 'motorPoint',
  title: 'Motor at a slip',
  args: {
    circuit: circuitArgument,
    lineV,
    hz,
    slip: between('slip, 1 at standstill', '', 0, 1),
  },
  results: {
    speedRpm: result('speed', 'rpm'),
    torqueNm: result('torque in the gap', 'Nm'),
    statorA: result('stator current', 'A'),
    rotorA: result('rotor current', 'A'),
    powerFactor: result('power factor'),
    efficiency: result('efficiency without friction'),
    inputW: result('taken in', 'W'),
    shaftW: result('given to the shaft', 'W'),
  },
  formula: 'I_1 = V/(R1 + jX1 + jXm∥Z2(s));  T = 3·|I2|²·(R2/s)/ω_s',
  source,
  example: { circuit: example, slip: 0.022 },
  run: ({ circuit, slip, ...other }) => motorAt(circuit, slip, other.lineV, other.hz),
});

/** Largest torque and where it lies. */
export const motorBreakdown = calculation<
  { circuit: MotorCircuit; lineV?: number; hz?: number },
  { slip: number; speedRpm: number; torqueNm: number; statorA: number }
>({
  name: 'motorBreakdown',
  title: 'Breakdown torque',
  args: { circuit: circuitArgument, lineV, hz },
  results: {
    slip: result('slip'),
    speedRpm: result('speed', 'rpm'),
    torqueNm: result('torque', 'Nm'),
    statorA: result('current there', 'A'),
  },
  formula: 'largest T(s); with one cage s_k = R2/√(R_th² + (X_th + X2)²)',
  source,
  example: { circuit: example },
  run: ({ circuit, ...other }) => {
    const slip = breakdownSlip(circuit, other.lineV, other.hz);
    const { speedRpm, torqueNm, statorA } = motorAt(circuit, slip, other.lineV, other.hz);
    return { slip, speedRpm, torqueNm, statorA };
  },
});

/** Where the motor settles under a load. */
export const motorLoadPoint = calculation<
  { circuit: MotorCircuit; loadTorqueNm: number },
  { slip: number; speedRpm: number; statorA: number }
>({
  name: 'motorLoadPoint',
  title: 'Motor under load',
  args: { circuit: circuitArgument, loadTorqueNm: upTo('load torque', 'Nm', 1e7) },
  results: {
    slip: result('slip'),
    speedRpm: result('speed', 'rpm'),
    statorA: result('current', 'A'),
  },
  formula: 'T(s) = T_L on the running side of the breakdown',
  source,
  example: { circuit: example, loadTorqueNm: 50 },
  run: ({ circuit, loadTorqueNm }) => {
    const slip = loadSlip(circuit, () => loadTorqueNm);
    if (slip === undefined) {
      const most = motorAt(circuit, breakdownSlip(circuit)).torqueNm;
      throw new CalculationError(
        'loadTorqueNm',
        `loadTorqueNm must be at most ${most.toPrecision(4)} Nm, the breakdown torque`,
      );
    }
    const { speedRpm, statorA } = motorAt(circuit, slip);
    return { slip, speedRpm, statorA };
  },
});

/**
 * Least voltage at which the motor breaks a load loose: T_A·(U/U_N)² = T.
 *
 * @throws CalculationError when the motor cannot do it at full voltage
 */
export const minimumStartVoltage = calculation<
  { circuit: MotorCircuit; breakawayNm: number },
  { fraction: number; statorA: number }
>({
  name: 'minimumStartVoltage',
  title: 'Least voltage to break loose',
  args: { circuit: circuitArgument, breakawayNm: positive('breakaway torque', 'Nm', 1e7) },
  results: { fraction: result('of full voltage'), statorA: result('current then', 'A') },
  formula: 'U/U_N = √(T/T_A)',
  source: 'torque follows the square of the voltage, current the voltage',
  example: { circuit: example, breakawayNm: 30 },
  run: ({ circuit, breakawayNm }) => {
    const locked = motorAt(circuit, 1);
    const fraction = Math.sqrt(breakawayNm / locked.torqueNm);
    if (fraction > 1)
      throw new CalculationError(
        'breakawayNm',
        `breakawayNm must be at most ${locked.torqueNm.toPrecision(4)} Nm, the starting torque at full voltage`,
      );
    return { fraction, statorA: locked.statorA * fraction };
  },
});

/**
 * Starting torque left when the current is limited.
 *
 * @example startTorqueAtLimit.run({ lockedCurrentRatio: 7, lockedTorqueRatio: 2.2, limitRatio: 3.5 }).torqueRatio // 0.55
 */
export const startTorqueAtLimit = calculation<
  { lockedCurrentRatio: number; lockedTorqueRatio: number; limitRatio: number },
  { voltageFraction: number; torqueRatio: number }
>({
  name: 'startTorqueAtLimit',
  title: 'Starting torque at a current limit',
  args: {
    lockedCurrentRatio: positive('I_A/I_N', '', 15),
    lockedTorqueRatio: positive('T_A/T_N', '', 10),
    limitRatio: positive('limit in rated current', '', 15),
  },
  results: { voltageFraction: result('of full voltage'), torqueRatio: result('of rated torque') },
  formula: 'U/U_N = min(1, I_limit/I_A);  T = T_A·(U/U_N)²',
  source: 'current follows the voltage at standstill, torque its square',
  example: { lockedCurrentRatio: 7.1, lockedTorqueRatio: 2.2, limitRatio: 3.5 },
  run: ({ lockedCurrentRatio, lockedTorqueRatio, limitRatio }) => {
    const voltageFraction = Math.min(1, limitRatio / lockedCurrentRatio);
    return { voltageFraction, torqueRatio: lockedTorqueRatio * voltageFraction ** 2 };
  },
});
