import { calculation } from '../calculation/index.js';

/**
 * Time in which a DC link falls to a limit through its bleeder: U(t) = U0·e^(−t/RC). The countdown never replaces the measurement.
 *
 * @example discharge.run({ capacityUF: 470, bleedKOhm: 47, startV: 566, limitV: 60 }).timeS // 49.6
 */
export const discharge = calculation<
  { capacityUF: number; bleedKOhm: number; startV: number; limitV: number },
  { tauS: number; timeS: number; energyJ: number; bleedW: number }
>({
  name: 'discharge',
  title: 'Discharge of the DC link',
  args: {
    capacityUF: { unit: 'µF', title: 'capacity', above: 0, max: 1e6 },
    bleedKOhm: { unit: 'kΩ', title: 'bleeder', above: 0, max: 1e5 },
    startV: { unit: 'V', title: 'voltage at the start', above: 0, max: 2000 },
    limitV: { unit: 'V', title: 'limit', above: 0, max: 2000 },
  },
  results: {
    tauS: { unit: 's', title: 'time constant' },
    timeS: { unit: 's', title: 'time to the limit' },
    energyJ: { unit: 'J', title: 'energy stored' },
    bleedW: { unit: 'W', title: 'in the bleeder at the start' },
  },
  formula: 't = R·C·ln(U0/U);  E = C·U0²/2',
  source: 'exponential discharge; limit 60 V by IEC 61800-5-1',
  example: { capacityUF: 600, bleedKOhm: 47, startV: 566, limitV: 60 },
  run: ({ capacityUF, bleedKOhm, startV, limitV }) => {
    const tauS = capacityUF * bleedKOhm * 1e-3;
    return {
      tauS,
      timeS: Math.max(0, tauS * Math.log(startV / limitV)),
      energyJ: 0.5e-6 * capacityUF * startV * startV,
      bleedW: (startV * startV) / (bleedKOhm * 1000),
    };
  },
});
