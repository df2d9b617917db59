import { positive, upTo, between, type ArgumentSpec } from '../calculation/index.js';
import { largestBetween, rootBetween } from '../numeric/index.js';

/**
 * Equivalent circuit of one phase in star, all referred to the stator, reactances at `hz`.
 *
 * A deep bar, and the leakage that saturates at starting current, are given by the values at standstill: between,
 * R2(s) = R2 + (R2_locked − R2)·s^p with p = `barExponent`, and X2(s) alike with `saturationExponent`. With `innerOhm` and
 * `innerLeakageOhm` the rotor has a second cage in parallel. With `coreOhm` the iron's losses lie beside the
 * magnetising reactance.
 */
export interface MotorCircuit {
  readonly lineV: number;
  readonly hz: number;
  readonly poles: number;
  readonly statorOhm: number;
  readonly statorLeakageOhm: number;
  readonly magnetisingOhm: number;
  readonly rotorLeakageOhm: number;
  readonly rotorOhm: number;
  readonly lockedRotorOhm?: number;
  readonly lockedRotorLeakageOhm?: number;
  readonly barExponent?: number;
  readonly saturationExponent?: number;
  readonly innerOhm?: number;
  readonly innerLeakageOhm?: number;
  readonly coreOhm?: number;
}

/** What a motor does at one slip. */
export interface MotorPoint {
  readonly speedRpm: number;
  readonly torqueNm: number;
  readonly statorA: number;
  readonly rotorA: number;
  readonly powerFactor: number;
  readonly efficiency: number;
  readonly inputW: number;
  readonly shaftW: number;
}

const ohm = (title: string, more: Partial<ArgumentSpec> = {}): ArgumentSpec =>
  positive(title, 'Ω', 1e5, more);

/** A motor of about 30 kW on 400 V, four poles: the example of every sum over a circuit. */
export const exampleCircuit: MotorCircuit = {
  lineV: 400,
  hz: 50,
  poles: 4,
  statorOhm: 0.1,
  statorLeakageOhm: 0.25,
  magnetisingOhm: 8,
  rotorLeakageOhm: 0.25,
  rotorOhm: 0.09,
};

/** The circuit as an argument of a calculation. */
export const circuitArgument: ArgumentSpec = {
  title: 'equivalent circuit, one phase in star',
  unit: '',
  kind: 'record',
  fields: {
    lineV: positive('line voltage', 'V', 15_000),
    hz: positive('frequency', 'Hz', 400),
    poles: between('poles', '', 2, 24, { whole: true }),
    statorOhm: upTo('stator', 'Ω', 1e5),
    statorLeakageOhm: ohm('stator leakage'),
    magnetisingOhm: ohm('magnetising'),
    rotorLeakageOhm: ohm('rotor leakage'),
    rotorOhm: ohm('rotor'),
    lockedRotorOhm: ohm('rotor at standstill (deep bar)', { optional: true }),
    lockedRotorLeakageOhm: ohm('rotor leakage at standstill', { optional: true }),
    barExponent: positive('exponent of the deep bar', '', 20, { optional: true }),
    saturationExponent: positive('exponent of the leakage', '', 1000, { optional: true }),
    innerLeakageOhm: ohm('leakage of a second cage', { optional: true }),
    innerOhm: ohm('second cage', { optional: true }),
    coreOhm: ohm('iron losses', { optional: true, max: 1e9 }),
  },
};

/** Synchronous speed, rad/s of the shaft. */
export const synchronousRad = (c: MotorCircuit, hz = c.hz): number => (4 * Math.PI * hz) / c.poles;

/** Admittance of a resistance and a reactance in series, as [real, imaginary]. */
const admittance = (r: number, x: number): readonly [number, number] => {
  const d = r * r + x * x;
  return [r / d, -x / d];
};

/**
 * Solves the circuit at a slip; other voltages and frequencies than the circuit's own scale it.
 *
 * Source: IEEE Std 112 equivalent circuit; torque from the air-gap power, T = P_ag/ω_s.
 *
 * @param slip of the shaft against the field; 0 at synchronous speed, 1 at standstill
 * @example motorAt({ lineV: 460, hz: 60, poles: 4, statorOhm: 0.641, statorLeakageOhm: 1.106, magnetisingOhm: 26.3, rotorLeakageOhm: 0.464, rotorOhm: 0.332 }, 0.022).statorA // 18.88
 */
export function motorAt(c: MotorCircuit, slip: number, lineV = c.lineV, hz = c.hz): MotorPoint {
  const k = hz / c.hz;
  const bar = slip ** (c.barExponent ?? 1);
  const rotorOhm = c.rotorOhm + ((c.lockedRotorOhm ?? c.rotorOhm) - c.rotorOhm) * bar;
  const rotorLeakageOhm =
    c.rotorLeakageOhm +
    ((c.lockedRotorLeakageOhm ?? c.rotorLeakageOhm) - c.rotorLeakageOhm) *
      slip ** (c.saturationExponent ?? c.barExponent ?? 1);
  // At synchronous speed no current flows in the rotor.
  const ofRotor = (ohm: number, leakage: number): readonly [number, number] =>
    slip === 0 ? [0, 0] : admittance(ohm / slip, leakage * k);
  const outer = ofRotor(rotorOhm, rotorLeakageOhm);
  const inner =
    c.innerOhm !== undefined && c.innerLeakageOhm !== undefined
      ? ofRotor(c.innerOhm, c.innerLeakageOhm)
      : ([0, 0] as const);
  const rotor = [outer[0] + inner[0], outer[1] + inner[1]] as const;
  const middle = [
    rotor[0] + (c.coreOhm ? 1 / c.coreOhm : 0),
    rotor[1] - 1 / (c.magnetisingOhm * k),
  ] as const;
  const d = middle[0] ** 2 + middle[1] ** 2;
  const re = c.statorOhm + middle[0] / d;
  const im = c.statorLeakageOhm * k - middle[1] / d;
  const phaseV = lineV / Math.sqrt(3);
  const z2 = re * re + im * im;
  const statorA = phaseV / Math.sqrt(z2);
  // Voltage across the gap, squared: |I|²/|Y_middle|².
  const gap2 = (statorA * statorA) / d;
  const gapW = 3 * gap2 * rotor[0];
  const inputW = (3 * phaseV * phaseV * re) / z2;
  const shaftW = gapW * (1 - slip);
  return {
    speedRpm: ((120 * hz) / c.poles) * (1 - slip),
    torqueNm: gapW / synchronousRad(c, hz),
    statorA,
    rotorA: Math.sqrt(gap2 * (rotor[0] ** 2 + rotor[1] ** 2)),
    powerFactor: re / Math.sqrt(z2),
    efficiency: shaftW / inputW,
    inputW,
    shaftW,
  };
}

/**
 * Slip of the largest torque: the highest point of a fine grid over the slip, refined by golden section.
 *
 * @example breakdownSlip(circuit) // 0.17
 */
export function breakdownSlip(
  c: MotorCircuit,
  lineV = c.lineV,
  hz = c.hz,
  points = 60,
  precision = 1e-12,
): number {
  const torque = (lnSlip: number): number => motorAt(c, Math.exp(lnSlip), lineV, hz).torqueNm;
  const at = (i: number): number => Math.log(1e-4) * (1 - i / points);
  let best = 0;
  for (let i = 1; i <= points; i++) if (torque(at(i)) > torque(at(best))) best = i;
  return Math.exp(
    largestBetween(torque, at(Math.max(0, best - 1)), at(Math.min(points, best + 1)), precision),
  );
}

/**
 * Slip at which the motor carries a load, on the running side of the breakdown.
 *
 * @param loadAt load torque by shaft speed, rad/s
 * @returns undefined where the load is above what the motor can carry
 */
export function loadSlip(
  c: MotorCircuit,
  loadAt: (rad: number) => number,
  lineV = c.lineV,
  hz = c.hz,
): number | undefined {
  const w = synchronousRad(c, hz);
  const top = breakdownSlip(c, lineV, hz);
  const spare = (slip: number): number =>
    motorAt(c, slip, lineV, hz).torqueNm - loadAt(w * (1 - slip));
  if (spare(top) < 0) return undefined;
  const least = 1e-9;
  return spare(least) >= 0 ? least : rootBetween(spare, least, top);
}
