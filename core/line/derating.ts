import {
  between,
  calculation,
  CalculationError,
  positive,
  result,
  upTo,
} from '../calculation/index.js';

/**
 * Current a device may give where the air is thin or warm.
 *
 * @example derating.run({ altitudeM: 1600, altitudeFromM: 1000, altitudePctPer100M: 1, ambientC: 45, ambientFromC: 40, ambientPctPerK: 2, ratedA: 5.6 }).usableA // 4.7376
 */
export const derating = calculation<
  {
    altitudeM: number;
    altitudeFromM: number;
    altitudePctPer100M: number;
    ambientC: number;
    ambientFromC: number;
    ambientPctPerK: number;
    ratedA: number;
  },
  { altitudeFactor: number; temperatureFactor: number; factor: number; usableA: number }
>({
  name: 'derating',
  title: 'Derating for altitude and heat',
  args: {
    altitudeM: between('altitude', 'm', -500, 4000),
    altitudeFromM: upTo('full rating up to', 'm', 4000),
    altitudePctPer100M: upTo('loss for every 100 m above', '%', 10),
    ambientC: between('air at the device', '°C', -40, 60),
    ambientFromC: between('full rating up to', '°C', 0, 60),
    ambientPctPerK: upTo('loss for every kelvin above', '%', 10),
    ratedA: positive('rated current', 'A', 10_000),
  },
  results: {
    altitudeFactor: result('for altitude'),
    temperatureFactor: result('for heat'),
    factor: result('both'),
    usableA: result('usable current', 'A'),
  },
  formula: 'k = (1 − p_h·(h − h0)/100 m)·(1 − p_θ·(θ − θ0))',
  source:
    'device profile; 1 % per 100 m above 1000 m is typical (IEC 61800-2 for the reference conditions)',
  confirm: 'The maker’s derating curves, also for the carrier frequency.',
  example: {
    altitudeM: 1600,
    altitudeFromM: 1000,
    altitudePctPer100M: 1,
    ambientC: 45,
    ambientFromC: 40,
    ambientPctPerK: 2,
    ratedA: 5.6,
  },
  run: (a) => {
    const altitudeFactor =
      1 - (a.altitudePctPer100M / 100) * (Math.max(0, a.altitudeM - a.altitudeFromM) / 100);
    const temperatureFactor =
      1 - (a.ambientPctPerK / 100) * Math.max(0, a.ambientC - a.ambientFromC);
    if (temperatureFactor <= 0)
      throw new CalculationError(
        'ambientC',
        `ambientC must be below ${a.ambientFromC + 100 / a.ambientPctPerK} °C, where nothing is left`,
      );
    if (altitudeFactor <= 0)
      throw new CalculationError(
        'altitudeM',
        `altitudeM must be below ${a.altitudeFromM + 10_000 / a.altitudePctPer100M} m, where nothing is left`,
      );
    const factor = altitudeFactor * temperatureFactor;
    return { altitudeFactor, temperatureFactor, factor, usableA: factor * a.ratedA };
  },
});
