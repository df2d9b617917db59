import { calculation, positive, result, upTo } from '../calculation/index.js';

/** Passes after which reflections are damped away in the lattice sum. */
const PASSES = 400;

interface Wave {
  linkV: number;
  riseNs: number;
  lengthM: number;
  velocityMPerUs: number;
  cableOhm: number;
  motorOhm: number;
  sourceOhm: number;
}

/**
 * Voltage peak at the motor terminals when an edge of the output meets them.
 *
 * @example reflectedWave.run({ linkV: 566, riseNs: 200, lengthM: 35, velocityMPerUs: 150, cableOhm: 80, motorOhm: 800, sourceOhm: 0 }).criticalLengthM // 15
 */
export const reflectedWave = calculation<
  Wave,
  {
    criticalLengthM: number;
    reflection: number;
    linearRulePeakV: number;
    latticePeakV: number;
    fullPeakV: number;
  }
>({
  name: 'reflectedWave',
  title: 'Reflected wave at the motor',
  args: {
    linkV: positive('DC link', 'V', 2000),
    riseNs: positive('rise time of the output', 'ns', 10_000),
    lengthM: upTo('motor cable', 'm', 10_000),
    velocityMPerUs: positive('velocity on the cable', 'm/µs', 299.79, { fallback: 150 }),
    cableOhm: positive('surge impedance of the cable', 'Ω', 1000, { fallback: 80 }),
    motorOhm: positive('surge impedance of the motor', 'Ω', 100_000, { fallback: 800 }),
    sourceOhm: upTo('surge impedance of the output', 'Ω', 1000, { fallback: 0 }),
  },
  results: {
    criticalLengthM: result('critical length', 'm'),
    reflection: result('reflection at the motor'),
    linearRulePeakV: result('peak, by length', 'V'),
    latticePeakV: result('peak, all reflections added', 'V'),
    fullPeakV: result('peak on a long cable', 'V'),
  },
  formula:
    'l_c = v·t_r/2;  ρ = (Z_m − Z_c)/(Z_m + Z_c);  Û = U·(1 + ρ·min(1, l/l_c));  lattice: Σ (1+ρ)·(ρ_s·ρ)^k·ramp(t − (2k+1)·τ)',
  source:
    'lossless line; IEC TS 60034-25, NEMA application guide for adjustable-speed drives. Fast pulse patterns can exceed the doubling.',
  confirm:
    'Rise time from the drive’s maker, peak and rise time the winding stands from the motor’s.',
  example: { linkV: 566, riseNs: 200, lengthM: 35 },
  run: (a) => {
    const criticalLengthM = (a.velocityMPerUs * a.riseNs * 1e-3) / 2;
    const reflection = (a.motorOhm - a.cableOhm) / (a.motorOhm + a.cableOhm);
    return {
      criticalLengthM,
      reflection,
      linearRulePeakV: a.linkV * (1 + reflection * Math.min(1, a.lengthM / criticalLengthM)),
      latticePeakV: latticePeak(a, reflection),
      fullPeakV: a.linkV * (1 + reflection),
    };
  },
});

/** Largest value of the sum of all passes; it is linear between the beginnings and ends of their ramps. */
function latticePeak(a: Wave, reflection: number): number {
  const atSource = (a.sourceOhm - a.cableOhm) / (a.sourceOhm + a.cableOhm);
  const launched = (a.linkV * a.cableOhm) / (a.cableOhm + a.sourceOhm);
  const riseUs = a.riseNs * 1e-3;
  const travelUs = a.lengthM / a.velocityMPerUs;
  if (travelUs === 0) return a.linkV;
  const each = Array.from({ length: PASSES }, (_, k) => ({
    t: (2 * k + 1) * travelUs,
    size: launched * (1 + reflection) * (atSource * reflection) ** k,
  }));
  const at = (t: number): number =>
    each.reduce((sum, p) => (t <= p.t ? sum : sum + p.size * Math.min(1, (t - p.t) / riseUs)), 0);
  const corners = each.slice(0, PASSES / 2).flatMap((p) => [p.t, p.t + riseUs]);
  return Math.max(...corners.map(at));
}
