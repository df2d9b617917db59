/** A stretch in which a value is y + dy·τ + ddy·τ²/2, with τ in seconds since t0 (µs). */
export interface Stretch {
  readonly t0: number;
  readonly y: number;
  readonly dy: number;
  readonly ddy: number;
}

/** A path: stretches one after the other, and where it rests when they are over. */
export interface Path {
  readonly stretches: readonly Stretch[];
  readonly endUs: number;
  /** Value from `endUs` on; undefined where the last stretch goes on for ever. */
  readonly rest: number | undefined;
}

/**
 * Value of a stretch at t µs.
 *
 * @example stretchValue({ t0: 0, y: 0, dy: 10, ddy: 0 }, 500_000) // 5
 */
export function stretchValue(s: Stretch, t: number): number {
  const tau = (t - s.t0) / 1e6;
  return s.y + (s.dy + (s.ddy * tau) / 2) * tau;
}

/** The stretch of a path in force at t; before the first the first holds. */
export function pathStretch({ stretches, endUs, rest }: Path, t: number): Stretch {
  if (rest !== undefined && t >= endUs) return { t0: endUs, y: rest, dy: 0, ddy: 0 };
  let at = stretches[0];
  for (const s of stretches) if (s.t0 <= t) at = s;
  return at;
}

/** A value that rests, from t on. */
export const steady = (y: number, t: number): Stretch => ({ t0: t, y, dy: 0, ddy: 0 });
