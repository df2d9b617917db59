import {
  between,
  calculation,
  CalculationError,
  choice,
  positive,
  result,
  upTo,
} from '../calculation/index.js';
import { copperOhm } from './voltage-drop.js';

/**
 * Heat of an enclosure: what its walls give off against the losses inside, and the air it would need.
 *
 * @example enclosureHeat.run({ lossW: [84, 30], areaM2: 1.6, kWPerM2K: 5.5, ambientC: 30, maxC: 40 }).riseK // 12.95
 */
export const enclosureHeat = calculation<
  { lossW: readonly number[]; areaM2: number; kWPerM2K: number; ambientC: number; maxC: number },
  { totalW: number; riseK: number; insideC: number; ok: boolean; airM3PerH: number }
>({
  name: 'enclosureHeat',
  title: 'Heat in the enclosure',
  args: {
    lossW: { unit: 'W', title: 'losses inside, one each', kind: 'list', min: 0, max: 1e6 },
    areaM2: positive('free surface of the enclosure', 'm²', 1000),
    kWPerM2K: positive('heat through the wall', 'W/(m²·K)', 50, { fallback: 5.5 }),
    ambientC: between('air around it', '°C', -40, 60),
    maxC: between('highest inside', '°C', 0, 80),
  },
  results: {
    totalW: result('losses', 'W'),
    riseK: result('rise inside', 'K'),
    insideC: result('inside', '°C'),
    ok: result('cool enough as it is'),
    airM3PerH: result('air needed to hold it', 'm³/h'),
  },
  formula: 'ΔT = P/(k·A);  air V = 3.1·(P − k·A·ΔT_max)/ΔT_max',
  source:
    'IEC TR 60890 in its simplest form, painted sheet steel 5.5 W/(m²·K); heat of air 1.16 kJ/(m³·K)',
  confirm: 'The spacing the device’s maker asks for; filters clog.',
  example: { lossW: [84, 30], areaM2: 1.6, ambientC: 30, maxC: 40 },
  run: ({ lossW, areaM2, kWPerM2K, ambientC, maxC }) => {
    if (maxC <= ambientC)
      throw new CalculationError('maxC', `maxC must be above ${ambientC} °C, the air around it`);
    const totalW = lossW.reduce((sum, x) => sum + x, 0);
    const riseK = totalW / (kWPerM2K * areaM2);
    const rest = totalW - kWPerM2K * areaM2 * (maxC - ambientC);
    return {
      totalW,
      riseK,
      insideC: ambientC + riseK,
      ok: ambientC + riseK <= maxC,
      airM3PerH: rest > 0 ? (3.1 * rest) / (maxC - ambientC) : 0,
    };
  },
});

/**
 * Prospective short-circuit current behind a transformer and a cable.
 *
 * @example prospectiveCurrent.run({ sourceKVA: 250, sourceZPct: 4, volts: 400, lengthM: 0, areaMm2: 50 }).kiloA // 9.02
 */
export const prospectiveCurrent = calculation<
  { sourceKVA: number; sourceZPct: number; volts: number; lengthM: number; areaMm2: number },
  { atTransformerKA: number; kiloA: number }
>({
  name: 'prospectiveCurrent',
  title: 'Prospective short-circuit current',
  args: {
    sourceKVA: positive('transformer', 'kVA', 1e5),
    sourceZPct: positive('impedance', '%', 30),
    volts: positive('line to line', 'V', 1000),
    lengthM: upTo('cable to the device', 'm', 10_000, { fallback: 0 }),
    areaMm2: positive('its conductor', 'mm²', 1000, { fallback: 50 }),
  },
  results: {
    atTransformerKA: result('at the transformer', 'kA'),
    kiloA: result('at the device', 'kA'),
  },
  formula: 'I = U/(√3·√(X_T² + R_cable²));  X_T = z·U²/S',
  source:
    'IEC 60909-0 without its voltage factor, source taken as a reactance, cable at 20 °C as a resistance',
  confirm: 'The value the supply company states; motors nearby add to it.',
  example: { sourceKVA: 250, sourceZPct: 4, volts: 400, lengthM: 30, areaMm2: 50 },
  run: ({ sourceKVA, sourceZPct, volts, lengthM, areaMm2 }) => {
    const x = ((sourceZPct / 100) * volts ** 2) / (sourceKVA * 1000);
    const kA = (z: number): number => volts / (Math.sqrt(3) * z) / 1000;
    return { atTransformerKA: kA(x), kiloA: kA(Math.hypot(x, copperOhm(lengthM, areaMm2))) };
  },
});

/** Guide values: reactance ahead of a six-pulse bridge, % → current distortion at full load, %. */
const distortion: readonly (readonly [number, number])[] = [
  [0.5, 100],
  [1, 72],
  [2, 52],
  [3, 43],
  [4, 38],
  [5, 34],
  [6, 31],
  [8, 28],
  [10, 25],
];

/**
 * Distortion of the supply current of a six-pulse bridge with a capacitor link.
 *
 * @example currentDistortion.run({ reactancePct: 3 }).thdPct // 43
 */
export const currentDistortion = calculation<
  { reactancePct: number },
  { thdPct: number; truePowerFactor: number }
>({
  name: 'currentDistortion',
  title: 'Distortion of the supply current',
  args: { reactancePct: between('reactance of source and reactor together', '%', 0.5, 10) },
  results: {
    thdPct: result('total distortion of the current', '%'),
    truePowerFactor: result('power factor with it'),
  },
  formula: 'table by reactance, straight between;  λ = 0.98/√(1 + THD²)',
  source:
    'guide values for a capacitor-fed six-pulse bridge at full load; a study by IEEE 519 or IEC 61000-3-12 prevails',
  confirm:
    'A harmonic study where the limits bind; less load distorts more in per cent, less in ampere.',
  example: { reactancePct: 3 },
  run: ({ reactancePct }) => {
    const at = Math.max(
      1,
      distortion.findIndex(([x]) => x >= reactancePct),
    );
    const [[x0, y0], [x1, y1]] = [distortion[at - 1], distortion[at]];
    const thdPct = y0 + ((reactancePct - x0) / (x1 - x0)) * (y1 - y0);
    return { thdPct, truePowerFactor: 0.98 / Math.hypot(1, thdPct / 100) };
  },
});

/** Torque a motor may give for ever at low speed. */
export const lowSpeedTorque = calculation<
  { hz: number; ratedHz: number; cooling: string },
  { limitPct: number }
>({
  name: 'lowSpeedTorque',
  title: 'Torque allowed at low speed',
  args: {
    hz: upTo('frequency', 'Hz', 400),
    ratedHz: positive('rated frequency', 'Hz', 400),
    cooling: choice('cooling', ['self', 'forced'], 'self'),
  },
  results: { limitPct: result('of rated torque, for ever', '%') },
  formula:
    'own fan: 50 % at standstill, rising straight to 100 % at half the rated frequency;  above rated frequency f_N/f;  forced: 100 % below',
  source: 'typical curve of self-ventilated motors (IEC TS 60034-25)',
  confirm: 'The motor maker’s curve prevails.',
  example: { hz: 10, ratedHz: 50, cooling: 'self' },
  run: ({ hz, ratedHz, cooling }) => {
    const share = hz / ratedHz;
    if (share > 1) return { limitPct: 100 / share };
    return { limitPct: cooling === 'forced' ? 100 : Math.min(100, 50 + 100 * share) };
  },
});
