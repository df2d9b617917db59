import type { FullVoltage } from './full-voltage.js';

/** Tolerances of starting torque (IEC 60034-1:2022, table of tolerances). */
export const LOCKED_TORQUE = { low: 0.85, high: 1.25 } as const;
/** Pull-up torque over starting torque of the two usual shapes of a cage motor: the plate tells neither. */
export const SHAPES = { weak: 0.75, strong: 0.87 } as const;

/**
 * A motor whose torque below breakdown is otherwise than its table by a share at standstill, which is gone at breakdown, and
 * by another half-way, where only the shape is unknown.
 *
 * @param locked torque at standstill as a share of the table's
 * @param midway torque half-way to breakdown as a share of the table's, beside that
 * @example withTorque(motor, 1.25).rows[0].torqueNm // a quarter more
 */
export function withTorque(motor: FullVoltage, locked: number, midway = 1): FullVoltage {
  const top = motor.rows.reduce((best, row) => (row.torqueNm > best.torqueNm ? row : best));
  const rows = motor.rows.map((row) => {
    if (row.share >= top.share) return row;
    const x = row.share / top.share;
    const factor = (1 + (locked - 1) * (1 - x)) * (1 + (midway - 1) * 4 * x * (1 - x));
    return { ...row, torqueNm: row.torqueNm * factor };
  });
  return { ...motor, rows };
}
