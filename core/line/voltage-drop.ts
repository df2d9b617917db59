import { calculation } from '../calculation/index.js';

/** Resistivity of copper at 20 °C, Ω·mm²/m, and its change per kelvin (IEC 60028). */
export const COPPER_OHM_MM2_PER_M = 0.017241;
export const COPPER_PER_K = 0.00393;

/** Resistance of one copper conductor, Ω. */
export function copperOhm(lengthM: number, areaMm2: number, conductorC = 20): number {
  return ((COPPER_OHM_MM2_PER_M * lengthM) / areaMm2) * (1 + COPPER_PER_K * (conductorC - 20));
}

/**
 * Voltage drop along a cable.
 *
 * @example voltageDrop.run({ system: 'three', currentA: 4.5, lengthM: 48, areaMm2: 1.5, conductorC: 70, powerFactor: 0.81, reactanceOhmPerM: 0, nominalV: 400 }).dropV // 4.17
 */
export const voltageDrop = calculation<
  {
    system: string;
    currentA: number;
    lengthM: number;
    areaMm2: number;
    conductorC: number;
    powerFactor: number;
    reactanceOhmPerM: number;
    nominalV: number;
  },
  { resistanceOhm: number; dropV: number; dropPct: number; exactDropV: number; lossW: number }
>({
  name: 'voltageDrop',
  title: 'Voltage drop of a cable',
  args: {
    system: { unit: '', title: 'system', kind: 'choice', choices: ['three', 'single', 'dc'] },
    currentA: { unit: 'A', title: 'current', min: 0, max: 10_000 },
    lengthM: { unit: 'm', title: 'length', min: 0, max: 10_000 },
    areaMm2: { unit: 'mm²', title: 'conductor', above: 0, max: 1000 },
    conductorC: { unit: '°C', title: 'conductor temperature', min: -40, max: 250 },
    powerFactor: { unit: '', title: 'power factor', min: 0, max: 1, fallback: 1 },
    reactanceOhmPerM: { unit: 'Ω/m', title: 'reactance', min: 0, max: 0.01, fallback: 0 },
    nominalV: { unit: 'V', title: 'nominal voltage', above: 0, max: 36_000 },
  },
  results: {
    resistanceOhm: { unit: 'Ω', title: 'one conductor' },
    dropV: { unit: 'V', title: 'drop' },
    dropPct: { unit: '%', title: 'drop' },
    exactDropV: { unit: 'V', title: 'drop from the phasors' },
    lossW: { unit: 'W', title: 'loss in the cable' },
  },
  formula: 'ΔU = k·I·(R·cosφ + X·sinφ), k = √3, 2 or 2;  R = ρ·L/A·(1 + α·(θ − 20))',
  source: 'IEC 60364-5-52 annex G; copper by IEC 60028',
  example: {
    system: 'three',
    currentA: 14.4,
    lengthM: 35,
    areaMm2: 2.5,
    conductorC: 70,
    powerFactor: 0.83,
    nominalV: 400,
  },
  run: ({
    system,
    currentA,
    lengthM,
    areaMm2,
    conductorC,
    powerFactor,
    reactanceOhmPerM,
    nominalV,
  }) => {
    const resistanceOhm = copperOhm(lengthM, areaMm2, conductorC);
    const reactance = system === 'dc' ? 0 : reactanceOhmPerM * lengthM;
    const cos = system === 'dc' ? 1 : powerFactor;
    const sin = Math.sqrt(1 - cos * cos);
    const k = system === 'three' ? Math.sqrt(3) : 2;
    const dropV = k * currentA * (resistanceOhm * cos + reactance * sin);
    const quadrature = k * currentA * (reactance * cos - resistanceOhm * sin);
    const exactDropV =
      nominalV - (Math.sqrt(Math.max(0, nominalV * nominalV - quadrature * quadrature)) - dropV);
    return {
      resistanceOhm,
      dropV,
      dropPct: (100 * dropV) / nominalV,
      exactDropV,
      lossW: (system === 'three' ? 3 : 2) * currentA * currentA * resistanceOhm,
    };
  },
});
