import { calculation } from '../calculation/index.js';

/**
 * Shaft speed at a frequency and load; the slip in rpm follows the torque up to rated frequency.
 *
 * @example shaftSpeed.run({ hz: 25, poles: 4, ratedHz: 50, ratedRpm: 1440, loadTorquePct: 100 }).shaftRpm // 690
 */
export const shaftSpeed = calculation<
  { hz: number; poles: number; ratedHz: number; ratedRpm: number; loadTorquePct: number },
  { synchronousRpm: number; slipRpm: number; shaftRpm: number }
>({
  name: 'shaftSpeed',
  title: 'Shaft speed under load',
  args: {
    hz: { unit: 'Hz', title: 'frequency', min: 0, max: 400 },
    poles: { unit: '', title: 'poles', min: 2, max: 24 },
    ratedHz: { unit: 'Hz', title: 'rated frequency', above: 0, max: 400 },
    ratedRpm: { unit: 'rpm', title: 'rated speed', above: 0, max: 30_000 },
    loadTorquePct: { unit: '%', title: 'load torque', min: 0, max: 200 },
  },
  results: {
    synchronousRpm: { unit: 'rpm', title: 'synchronous speed' },
    slipRpm: { unit: 'rpm', title: 'slip' },
    shaftRpm: { unit: 'rpm', title: 'shaft speed' },
  },
  formula: 'n_s = 120·f/poles;  slip = (120·f_N/poles − n_N)·T/T_N;  n = n_s − slip',
  source: 'slip proportional to torque in the working range, IEEE Std 112 equivalent circuit',
  example: { hz: 25, poles: 4, ratedHz: 50, ratedRpm: 1440, loadTorquePct: 75 },
  run: ({ hz, poles, ratedHz, ratedRpm, loadTorquePct }) => {
    const synchronousRpm = (120 * hz) / poles;
    const slipRpm = hz === 0 ? 0 : (((120 * ratedHz) / poles - ratedRpm) * loadTorquePct) / 100;
    return { synchronousRpm, slipRpm, shaftRpm: Math.max(0, synchronousRpm - slipRpm) };
  },
});

/**
 * Speed behind the gear, and of a drum's or roll's surface.
 *
 * @example machineSpeed.run({ shaftRpm: 1440, gearRatio: 9.6, drumDiameterM: 0.3 }) // { outputRpm: 150, surfaceMPerS: 2.356 }
 */
export const machineSpeed = calculation<
  { shaftRpm: number; gearRatio: number; drumDiameterM?: number },
  { outputRpm: number; surfaceMPerS: number | null }
>({
  name: 'machineSpeed',
  title: 'Speed of the machine',
  args: {
    shaftRpm: { unit: 'rpm', title: 'motor shaft', min: 0, max: 60_000 },
    gearRatio: { unit: '', title: 'gear ratio, motor to load', above: 0, max: 100_000 },
    drumDiameterM: { unit: 'm', title: 'diameter', above: 0, max: 100, optional: true },
  },
  results: {
    outputRpm: { unit: 'rpm', title: 'behind the gear' },
    surfaceMPerS: { unit: 'm/s', title: 'surface' },
  },
  formula: 'n = n_motor/i;  v = π·D·n/60',
  source: 'rigid gear',
  example: { shaftRpm: 1440, gearRatio: 9.6, drumDiameterM: 0.3 },
  run: ({ shaftRpm, gearRatio, drumDiameterM }) => {
    const outputRpm = shaftRpm / gearRatio;
    return {
      outputRpm,
      surfaceMPerS: drumDiameterM === undefined ? null : (Math.PI * drumDiameterM * outputRpm) / 60,
    };
  },
});
