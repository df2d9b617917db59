import { calculation } from '../calculation/index.js';

/**
 * Moment of inertia seen by the motor: J = J_m + J_L/i².
 *
 * @example inertiaAtMotor.run({ motorKgm2: 0.0092, loadKgm2: 0.85, gearRatio: 9.6 }).totalKgm2 // 0.01842
 */
export const inertiaAtMotor = calculation<
  { motorKgm2: number; loadKgm2: number; gearRatio: number },
  { totalKgm2: number }
>({
  name: 'inertiaAtMotor',
  title: 'Inertia at the motor',
  args: {
    motorKgm2: { unit: 'kg·m²', title: 'motor', min: 0, max: 1e5 },
    loadKgm2: { unit: 'kg·m²', title: 'load, at its own shaft', min: 0, max: 1e9 },
    gearRatio: { unit: '', title: 'gear ratio, motor to load', above: 0, max: 100_000 },
  },
  results: { totalKgm2: { unit: 'kg·m²', title: 'total at the motor' } },
  formula: 'J = J_m + J_L/i²',
  source: 'kinetic energy is the same at both shafts',
  example: { motorKgm2: 0.036, loadKgm2: 14_200, gearRatio: 730 },
  run: ({ motorKgm2, loadKgm2, gearRatio }) => ({
    totalKgm2: motorKgm2 + loadKgm2 / (gearRatio * gearRatio),
  }),
});
