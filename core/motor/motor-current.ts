import { calculation } from '../calculation/index.js';

/**
 * Current a motor draws at rated power: I = P/(η·√3·U·cosφ), without √3 for one phase.
 *
 * @example motorCurrent.run({ powerKw: 2.2, voltageV: 400, efficiency: 0.87, powerFactor: 0.81, phases: 3 }).currentA // 4.506
 */
export const motorCurrent = calculation<
  { powerKw: number; voltageV: number; efficiency: number; powerFactor: number; phases: number },
  { currentA: number; inputKw: number; kva: number }
>({
  name: 'motorCurrent',
  title: 'Motor current from power',
  args: {
    powerKw: { unit: 'kW', title: 'shaft power', above: 0, max: 10_000 },
    voltageV: { unit: 'V', title: 'line voltage', above: 0, max: 15_000 },
    efficiency: { unit: '', title: 'efficiency', above: 0, max: 1 },
    powerFactor: { unit: '', title: 'power factor', above: 0, max: 1 },
    phases: { unit: '', title: 'phases', min: 1, max: 3, fallback: 3 },
  },
  results: {
    currentA: { unit: 'A', title: 'current' },
    inputKw: { unit: 'kW', title: 'input power' },
    kva: { unit: 'kVA', title: 'apparent power' },
  },
  formula: 'P_in = P/η;  S = P_in/cosφ;  I = S/(√3·U) for three phases, S/U for one',
  source: 'IEC 60034-1, definitions of rated output, efficiency and power factor',
  example: { powerKw: 7.5, voltageV: 400, efficiency: 0.907, powerFactor: 0.83 },
  run: ({ powerKw, voltageV, efficiency, powerFactor, phases }) => {
    const inputKw = powerKw / efficiency;
    const kva = inputKw / powerFactor;
    return {
      currentA: (kva * 1000) / ((phases === 1 ? 1 : Math.sqrt(3)) * voltageV),
      inputKw,
      kva,
    };
  },
});
