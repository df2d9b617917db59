import type { Probe } from '../circuit/index.js';
import type { LandingVolts } from '../trace/index.js';

/** Phasor area of three landings below which no rotation is seen, V². */
const LEAST_AREA = 1;

/** What may be measured of one solution. */
export function probeOf(s: LandingVolts): Probe {
  const joined = (plus: number, minus: number): boolean => s.island[plus] === s.island[minus];
  return {
    volts: (plus, minus) => (joined(plus, minus) ? s.volts[plus] - s.volts[minus] : null),
    acVolts: (plus, minus) =>
      joined(plus, minus)
        ? Math.hypot(s.acRe[plus] - s.acRe[minus], s.acIm[plus] - s.acIm[minus])
        : null,
    rotation: (a, b, c) => {
      if (!joined(a, b) || !joined(b, c)) return 0;
      // Twice the signed area of the triangle of the three phasors: clockwise as L1, L2, L3.
      const area =
        (s.acRe[b] - s.acRe[a]) * (s.acIm[c] - s.acIm[a]) -
        (s.acIm[b] - s.acIm[a]) * (s.acRe[c] - s.acRe[a]);
      return Math.abs(area) < LEAST_AREA ? 0 : area < 0 ? 1 : -1;
    },
  };
}
