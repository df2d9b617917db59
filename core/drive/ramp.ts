import type { Path, Stretch } from '../numeric/index.js';
import type { Control } from './vocabulary.js';

/** A planned change of frequency: a path that ends in a frequency. */
export type Ramp = Path & { readonly rest: number };

/** Which pair of ramp times applies. */
export type RampPair = 'main' | 'second' | 'jog' | 'quick';

/** Times in seconds for 0 ↔ reference frequency, for speeding up and slowing down. */
export function rampTimes(control: Control, pair: RampPair): { accelS: number; decelS: number } {
  const { accelS, decelS } = control;
  switch (pair) {
    case 'second':
      return { accelS: control.accel2S ?? accelS, decelS: control.decel2S ?? decelS };
    case 'jog':
      return { accelS: control.jogAccelS ?? accelS, decelS: control.jogDecelS ?? decelS };
    case 'quick':
      return { accelS, decelS: control.quickStopS ?? decelS };
    case 'main':
      return { accelS, decelS };
  }
}

/**
 * Plans a change of frequency that does not pass through zero.
 *
 * With an S-shape of p % each end is rounded over p % of the ramp time, so a full ramp takes T·(1 + p/100) and a change
 * too small to reach the full slope takes 2·√(Δf·T²·(p/100)/fRef).
 *
 * @param t0 start, µs
 * @param fromHz present frequency
 * @param toHz frequency to reach, of the same sign or zero
 * @param rampS time for 0 ↔ referenceHz, s; 0 means at once
 * @param referenceHz frequency the ramp time refers to
 * @param sCurvePct share of the ramp time rounded at each end, %
 * @example planRamp(0, 0, 30, 5, 50, 0).endUs // 3_000_000
 */
export function planRamp(
  t0: number,
  fromHz: number,
  toHz: number,
  rampS: number,
  referenceHz: number,
  sCurvePct: number,
): Ramp {
  const change = toHz - fromHz;
  if (change === 0 || rampS === 0)
    return { stretches: [{ t0, y: toHz, dy: 0, ddy: 0 }], endUs: t0, rest: toHz };
  const sign = Math.sign(change);
  const slope = (referenceHz / rampS) * sign;
  const size = Math.abs(change);
  if (sCurvePct === 0) {
    const endUs = t0 + Math.max(1, Math.round((size / Math.abs(slope)) * 1e6));
    return { stretches: [{ t0, y: fromHz, dy: slope, ddy: 0 }], endUs, rest: toHz };
  }
  const roundS = (rampS * sCurvePct) / 100;
  const bend = slope / roundS;
  const short = size < Math.abs(slope) * roundS;
  const peak = short ? sign * Math.sqrt(size * Math.abs(bend)) : slope;
  const bendUs = Math.max(1, Math.round((peak / bend) * 1e6));
  const straightUs = short ? 0 : Math.round((size / Math.abs(slope) - roundS) * 1e6);
  const atBend = fromHz + (peak * peak) / (2 * bend);
  const atEnd = toHz - (peak * peak) / (2 * bend);
  const stretches: Stretch[] = [{ t0, y: fromHz, dy: 0, ddy: bend }];
  if (straightUs > 0) stretches.push({ t0: t0 + bendUs, y: atBend, dy: slope, ddy: 0 });
  stretches.push({ t0: t0 + bendUs + straightUs, y: atEnd, dy: peak, ddy: -bend });
  return { stretches, endUs: t0 + 2 * bendUs + straightUs, rest: toHz };
}

/**
 * Longest time any travel between standstill and the highest frequency can take, ms.
 *
 * @example longestTravelMs({ ...control, accelS: 5, decelS: 10, sCurvePct: 0, stopMode: 'ramp' }) // 10_000
 */
export function longestTravelMs({ accelS, decelS, sCurvePct, stopMode, coastS }: Control): number {
  return Math.max(accelS, decelS, stopMode === 'coast' ? coastS : 0) * (1 + sCurvePct / 100) * 1000;
}

/**
 * First moment after t at which the size of a ramp's frequency passes a level, µs.
 *
 * @returns Infinity when it does not pass it any more
 * @example nextCrossing(planRamp(0, 0, 50, 5, 50, 0), 10, 0) // 1_000_000
 */
export function nextCrossing(ramp: Ramp, levelHz: number, t: number): number {
  let next = Infinity;
  ramp.stretches.forEach((s, i) => {
    const until = ramp.stretches[i + 1]?.t0 ?? ramp.endUs;
    for (const level of [levelHz, -levelHz]) {
      for (const tau of solveQuadratic(s.ddy / 2, s.dy, s.y - level)) {
        const at = s.t0 + Math.ceil(tau * 1e6);
        if (at > t && at >= s.t0 && at <= until && at < next) next = at;
      }
    }
  });
  return next;
}

/** Real roots of a·x² + b·x + c. */
function solveQuadratic(a: number, b: number, c: number): number[] {
  if (a === 0) return b === 0 ? [] : [-c / b];
  const root = b * b - 4 * a * c;
  return root < 0 ? [] : [(-b - Math.sqrt(root)) / (2 * a), (-b + Math.sqrt(root)) / (2 * a)];
}
