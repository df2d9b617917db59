import { motorAt, synchronousRad, type MotorCircuit } from './circuit.js';

/** A motor at full voltage: its torque and current over the speed, as a table that can be posted. */
export interface FullVoltage {
  /** Speed of the field, rad/s of the shaft. */
  readonly fieldRad: number;
  /** Rated speed, rad/s, torque, Nm, and current, A. */
  readonly rated: { readonly rad: number; readonly torqueNm: number; readonly amps: number };
  /** Rising in `share` of the speed of the field, from 0 to 1. */
  readonly rows: readonly FullVoltageRow[];
}

export interface FullVoltageRow {
  readonly share: number;
  readonly torqueNm: number;
  readonly amps: number;
}

/** Rows of the table of a circuit: closer together towards the speed of the field, where the torque is steepest. */
const ROWS = 160;
const LEAST_SLIP = 1e-3;

/**
 * Table of a motor's torque and current from its equivalent circuit.
 *
 * Source: IEEE Std 112 equivalent circuit, read at slips in equal steps of their logarithm; linear between them, within
 * 0.1 % of the circuit.
 *
 * @param lineV voltage of the supply, where it is not the circuit's
 * @example fullVoltageOf(circuit, rated).rows[0].torqueNm // locked-rotor torque
 */
export function fullVoltageOf(
  circuit: MotorCircuit,
  rated: FullVoltage['rated'],
  lineV = circuit.lineV,
): FullVoltage {
  const rows: FullVoltageRow[] = [];
  for (let i = 0; i <= ROWS; i++) {
    const slip = LEAST_SLIP ** (i / ROWS);
    const { torqueNm, statorA } = motorAt(circuit, slip, lineV);
    rows.push({ share: 1 - slip, torqueNm, amps: statorA });
  }
  rows.push({ share: 1, torqueNm: 0, amps: motorAt(circuit, 0, lineV).statorA });
  return { fieldRad: synchronousRad(circuit), rated, rows };
}

/** A point of a data sheet's curve: torque and current in rated ones at a share of the speed of the field. */
export interface CurvePoint {
  readonly share: number;
  readonly torqueRatio: number;
  readonly currentRatio: number;
}

/** Current at the speed of the field, in rated current, where a data sheet's curve does not reach it. */
export const NO_LOAD_RATIO = 0.35;

/**
 * Table of a motor from the torque and current curves of its data sheet, with its rated point and no load put in.
 *
 * Torque and current at another voltage: its square and itself.
 *
 * @param volts voltage of the supply as a share of that of the curve
 */
export function fullVoltageFromCurve(
  points: readonly CurvePoint[],
  fieldRad: number,
  rated: FullVoltage['rated'],
  volts = 1,
): FullVoltage {
  const ratedShare = rated.rad / fieldRad;
  const rows = [
    ...points.filter((p) => p.share < ratedShare && p.share < 1),
    { share: ratedShare, torqueRatio: 1, currentRatio: 1 },
    { share: 1, torqueRatio: 0, currentRatio: NO_LOAD_RATIO },
  ].map((p) => ({
    share: p.share,
    torqueNm: p.torqueRatio * rated.torqueNm * volts ** 2,
    amps: p.currentRatio * rated.amps * volts,
  }));
  return { fieldRad, rated, rows };
}

/**
 * Torque and current at full voltage and a speed of the shaft; below standstill (driven against its field) as at standstill,
 * above the field nothing.
 *
 * @param rad speed in the direction of the field, rad/s
 */
export function atFullVoltage(motor: FullVoltage, rad: number): { torqueNm: number; amps: number } {
  const { rows, fieldRad } = motor;
  const share = Math.min(Math.max(rad / fieldRad, 0), 1);
  let low = 0;
  let high = rows.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (rows[middle].share <= share) low = middle;
    else high = middle;
  }
  const [a, b] = [rows[low], rows[high]];
  const part = b.share > a.share ? (share - a.share) / (b.share - a.share) : 0;
  return {
    torqueNm: a.torqueNm + part * (b.torqueNm - a.torqueNm),
    amps: a.amps + part * (b.amps - a.amps),
  };
}
