import type { MotorPlate } from '../job/index.js';
import { toBase } from '../units/index.js';

/** Links a dual-voltage plate can be put in, low voltage first. */
export const linksOf = {
  deltaStar: ['delta', 'star'],
  seriesParallel: ['parallel', 'series'],
  single: ['none', 'none'],
} as const;
export type MotorLink = NonNullable<MotorPlate['link']>;

/** The plate's voltage and current in one link position. */
export interface RatedPoint {
  readonly link: MotorLink;
  readonly volts: number | undefined;
  readonly amps: number | undefined;
}

/** Rated points of a plate, low voltage first; one for a single-voltage plate. */
export function ratedPoints(motor: MotorPlate): RatedPoint[] {
  const connection = motor.connection ?? 'single';
  const links = linksOf[connection];
  const volts = [motor.lowV, motor.highV].map((q) => q && toBase(q, 'voltage'));
  const amps = [motor.lowA, motor.highA].map((q) => q && toBase(q, 'current'));
  const low: RatedPoint = { link: links[0], volts: volts[0], amps: amps[0] };
  return connection === 'single'
    ? [low]
    : [low, { link: links[1], volts: volts[1], amps: amps[1] }];
}

/**
 * Whether a plate voltage suits an output or supply voltage. NEMA plates of 460, 230 and 575 V belong to supplies of
 * 480, 240 and 600 V (NEMA MG 1 §1.4 and §12.44: ±10 %).
 */
export function voltageSuits(plateV: number, outputV: number): boolean {
  return Math.abs(outputV - plateV) / plateV <= 0.06;
}

/**
 * The link position a motor needs on this output voltage.
 *
 * @returns undefined when neither voltage of the plate suits, or the plate is not filled in
 * @example linkFor({ connection: 'deltaStar', lowV: { v: 230, u: 'V' }, highV: { v: 400, u: 'V' } }, 400)?.link // 'star'
 */
export function linkFor(motor: MotorPlate, outputV: number): RatedPoint | undefined {
  return ratedPoints(motor).find(
    (point) => point.volts !== undefined && voltageSuits(point.volts, outputV),
  );
}

/** The rated point the motor is linked for: the declared link, otherwise the one that suits the output. */
export function ratedPointInUse(
  motor: MotorPlate,
  outputV: number | undefined,
): RatedPoint | undefined {
  const declared = motor.link && ratedPoints(motor).find((point) => point.link === motor.link);
  return declared ?? (outputV === undefined ? undefined : linkFor(motor, outputV));
}
