import {
  calculation,
  CalculationError,
  positive,
  result,
  upTo,
  between,
  choice,
} from '../calculation/index.js';
import { COPPER_OHM_MM2_PER_M, COPPER_PER_K, copperOhm } from './voltage-drop.js';

interface Cable {
  system: string;
  currentA: number;
  lengthM: number;
  areaMm2: number;
  conductorC: number;
  powerFactor: number;
  reactanceOhmPerM: number;
  nominalV: number;
}

/**
 * Longest cable of this size, and smallest conductor for this length, within a limit of voltage drop.
 *
 * @example longestCable.run({ system: 'three', currentA: 4.5, lengthM: 48, areaMm2: 1.5, conductorC: 70, powerFactor: 1, reactanceOhmPerM: 0, nominalV: 400, limitPct: 4 }).maxLengthM // 149.3
 */
export const longestCable = calculation<
  Cable & { limitPct: number },
  { maxLengthM: number; minAreaMm2: number | null }
>({
  name: 'longestCable',
  title: 'Longest cable, smallest conductor',
  args: {
    system: choice('system', ['three', 'single', 'dc']),
    currentA: positive('current', 'A', 10_000),
    lengthM: upTo('length', 'm', 10_000),
    areaMm2: positive('conductor', 'mm²', 1000),
    conductorC: between('conductor temperature', '°C', -40, 250),
    powerFactor: positive('power factor', '', 1, { fallback: 1 }),
    reactanceOhmPerM: upTo('reactance', 'Ω/m', 0.01, { fallback: 0 }),
    nominalV: positive('nominal voltage', 'V', 36_000),
    limitPct: positive('limit of the drop', '%', 50),
  },
  results: {
    maxLengthM: result('longest cable of this size', 'm'),
    minAreaMm2: result('smallest conductor for this length', 'mm²'),
  },
  formula: 'L = ΔU/(k·I·(R’·cosφ + X’·sinφ));  A = ρ·cosφ/(ΔU/(k·I·L) − X’·sinφ)',
  source: 'IEC 60364-5-52 annex G, solved for length and area',
  confirm: 'The limit of the local code; more drop is allowed while starting.',
  example: {
    system: 'three',
    currentA: 14.4,
    lengthM: 35,
    areaMm2: 2.5,
    conductorC: 70,
    powerFactor: 0.83,
    nominalV: 400,
    limitPct: 4,
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
    limitPct,
  }) => {
    const k = system === 'three' ? Math.sqrt(3) : 2;
    const cos = system === 'dc' ? 1 : powerFactor;
    const x = system === 'dc' ? 0 : reactanceOhmPerM * Math.sqrt(1 - cos * cos);
    const dropV = (nominalV * limitPct) / 100;
    const perM = k * currentA * (copperOhm(1, areaMm2, conductorC) * cos + x);
    if (perM === 0)
      throw new CalculationError(
        'powerFactor',
        'powerFactor must be above 0 where the cable has no reactance',
      );
    const left = lengthM === 0 ? Infinity : dropV / (k * currentA * lengthM) - x;
    const rho = COPPER_OHM_MM2_PER_M * (1 + COPPER_PER_K * (conductorC - 20));
    return { maxLengthM: dropV / perM, minAreaMm2: left > 0 ? (rho * cos) / left : null };
  },
});

/**
 * Resistance a protective conductor must show, and the voltage along it at the test current.
 *
 * @example protectiveConductor.run({ areaMm2: 2.5, lengthM: 35, tempC: 20, allowanceOhm: 0.1, testA: 10 }).wireOhm // 0.2414
 */
export const protectiveConductor = calculation<
  { areaMm2: number; lengthM: number; tempC: number; allowanceOhm: number; testA: number },
  { wireOhm: number; limitOhm: number; dropV: number; limitV: number }
>({
  name: 'protectiveConductor',
  title: 'Protective conductor',
  args: {
    areaMm2: positive('conductor', 'mm²', 1000),
    lengthM: upTo('length', 'm', 10_000),
    tempC: between('temperature of the wire', '°C', -40, 100),
    allowanceOhm: upTo('for the joints', 'Ω', 10),
    testA: positive('test current', 'A', 100),
  },
  results: {
    wireOhm: result('of the wire', 'Ω'),
    limitOhm: result('highest reading', 'Ω'),
    dropV: result('along the wire at the test current', 'V'),
    limitV: result('highest reading at the test current', 'V'),
  },
  formula: 'R = ρ·L/A·(1 + α·(θ − 20));  limit = R + joints;  U = I·R',
  source: 'IEC 60204-1 §18.2; copper by IEC 60028',
  confirm: 'With everything isolated and proved dead; subtract the resistance of the leads.',
  example: { areaMm2: 2.5, lengthM: 35, tempC: 20, allowanceOhm: 0.1, testA: 10 },
  run: ({ areaMm2, lengthM, tempC, allowanceOhm, testA }) => {
    const wireOhm = copperOhm(lengthM, areaMm2, tempC);
    const limitOhm = wireOhm + allowanceOhm;
    return { wireOhm, limitOhm, dropV: wireOhm * testA, limitV: limitOhm * testA };
  },
});
