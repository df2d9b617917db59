import type { Plate } from '../job/index.js';
import { runDownPath, runDownTable, type RunDown } from '../motor/index.js';
import { base, plateNumbers } from './plate/context.js';

/** Torque that bearings and the fan of a motor take at any speed at least, share of rated torque (usual figure). */
const LEAST_FRICTION = 0.01;
/** Below this efficiency a gear locks itself: the load cannot drive the motor through it. */
const SELF_LOCKING = 0.5;
const GEAR_EFFICIENCY = 0.9;

/**
 * How the free shaft of a job slows down: dω/dt = −T(ω)/J, in Hz of the output, and with what an overhauling load drives
 * it backwards: the torque of the load through the gear the other way, T·η², none where the gear locks itself.
 *
 * @returns undefined where inertia, torque or speed are not entered
 */
export function runDownOf(plate: Plate): RunDown | undefined {
  const { load, motor, line } = plate;
  const { torqueNm, polePairs, inertiaKgm2, hz } = plateNumbers(plate);
  const known = motor.inertia && load.inertia && load.gearRatio && load.torquePct;
  if (!known || !torqueNm || !polePairs || !inertiaKgm2 || !hz) return undefined;
  const perNm = polePairs / (2 * Math.PI * inertiaKgm2);
  const { kind = 'constant', torquePct = 0, basePct = 0, gearEfficiency = GEAR_EFFICIENCY } = load;
  const law = (torquePct / 100) * torqueNm * perNm;
  const base0 = (basePct / 100) * torqueNm * perNm + (kind === 'constant' ? law : 0);
  const baseHzPerS = Math.max(base0, LEAST_FRICTION * torqueNm * perNm);
  const pulls = load.overhauls === true && gearEfficiency > SELF_LOCKING;
  const brakeNm = base(line?.brake?.torque, 'torque');
  return {
    baseHzPerS,
    linear: kind === 'linear' ? law / hz : 0,
    square: kind === 'square' ? law / (hz * hz) : 0,
    pullHzPerS: pulls ? baseHzPerS * gearEfficiency ** 2 : 0,
    brakeHzPerS: brakeNm === undefined ? undefined : brakeNm * perNm + baseHzPerS,
  };
}

/**
 * Time in which the free shaft runs down from a frequency to rest, s.
 *
 * @returns undefined where inertia, torque or speed are not entered
 */
export function coastTime(plate: Plate, fromHz: number): number | undefined {
  const fall = runDownOf(plate);
  return fall && runDownPath(runDownTable(fall, fromHz), fromHz, 0).endUs / 1e6;
}
