import type { Plate } from '../job/index.js';
import { toBase } from '../units/index.js';
import { inertiaAtMotor } from './inertia.js';
import { plateNumbers } from './plate/context.js';

/**
 * Time in which the free shaft runs down from a frequency, for a load torque that stays as it is: t = J·ω/T.
 *
 * @returns undefined where inertia, torque or speed are not entered
 */
export function coastTime(plate: Plate, fromHz: number): number | undefined {
  const { motor, load } = plate;
  const n = plateNumbers(plate);
  if (
    !motor.inertia ||
    !load.inertia ||
    !load.gearRatio ||
    !load.torquePct ||
    !n.powerKw ||
    !n.rpm ||
    !n.hz
  )
    return undefined;
  const { totalKgm2 } = inertiaAtMotor.run({
    motorKgm2: toBase(motor.inertia, 'inertia'),
    loadKgm2: toBase(load.inertia, 'inertia'),
    gearRatio: load.gearRatio,
  });
  const ratedTorque = (n.powerKw * 1000) / ((2 * Math.PI * n.rpm) / 60);
  const polePairs = Math.floor((60 * n.hz) / n.rpm);
  if (polePairs === 0) return undefined;
  return (totalKgm2 * 2 * Math.PI * (fromHz / polePairs)) / ((ratedTorque * load.torquePct) / 100);
}
