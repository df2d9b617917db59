import { calculation } from '../calculation/index.js';

/**
 * Voltage of the DC link: the crest of the supply with the motor stopped, the mean of the bridge under load.
 *
 * @example dcLinkVoltage.run({ supplyV: 400, phases: 3 }) // { unloadedV: 565.7, loadedV: 540.2 }
 */
export const dcLinkVoltage = calculation<
  { supplyV: number; phases: number },
  { unloadedV: number; loadedV: number | null }
>({
  name: 'dcLinkVoltage',
  title: 'DC link to expect',
  args: {
    supplyV: { unit: 'V', title: 'supply, line to line', above: 0, max: 1000 },
    phases: { unit: '', title: 'phases of the supply', min: 1, max: 3, fallback: 3 },
  },
  results: {
    unloadedV: { unit: 'V', title: 'motor stopped' },
    loadedV: { unit: 'V', title: 'under load' },
  },
  formula: 'stopped: √2·U;  under load, three-phase: 3·√2/π·U',
  source: 'crest of the supply; three-phase the mean of the six-pulse bridge (IEC 60146-1-1)',
  example: { supplyV: 400 },
  run: ({ supplyV, phases }) => ({
    unloadedV: Math.SQRT2 * supplyV,
    loadedV: phases === 3 ? ((3 * Math.SQRT2) / Math.PI) * supplyV : null,
  }),
});
