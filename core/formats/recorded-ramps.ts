import type { Recording } from './recorder.js';

/** What a recorded run came to: from rest up to a speed that is held, and down again. */
export interface RecordedRamps {
  /** What it was taken from: the output frequency, or the shaft where no frequency was recorded. */
  readonly of: 'hz' | 'rpm';
  /** Time from rest to the speed that is held, s; null where the recording does not hold the whole of it. */
  readonly upS: number | null;
  /** Time from there to rest, s; null where the recording does not hold the whole of it. */
  readonly downS: number | null;
  /** Speed that is held, in Hz or rpm. */
  readonly steady: number;
  /** Furthest above it, % of it. */
  readonly overshootPct: number;
  /** Highest current, A, and highest volts of the DC link; null where not recorded. */
  readonly peakA: number | null;
  readonly peakLinkV: number | null;
}

/** A ramp is timed between these shares of the speed that is held, and what lies between them stands for the whole. */
const LOW = 0.02;
const HIGH = 0.98;
/** What counts as held is at least this share of the highest. */
const HELD = 0.9;

interface Point {
  readonly t: number;
  readonly y: number;
}

const highest = (list: readonly (number | null)[]): number | null => {
  const known = list.filter((x) => x !== null);
  return known.length === 0 ? null : known.reduce((a, b) => Math.max(a, b));
};

/** Moment between two points at which a level is passed. */
const passed = (a: Point, b: Point, level: number): number =>
  a.y === b.y ? b.t : a.t + ((level - a.y) / (b.y - a.y)) * (b.t - a.t);

/** Time of a rise from the low to the high level, read in the order given; undefined where it is not there whole. */
function riseOf(points: readonly Point[], steady: number): number | undefined {
  const top = points.findIndex((p) => p.y >= HIGH * steady);
  if (top < 1) return undefined;
  const foot = points.slice(0, top).findLastIndex((p) => p.y <= LOW * steady);
  if (foot < 0) return undefined;
  const from = passed(points[foot], points[foot + 1], LOW * steady);
  const to = passed(points[top - 1], points[top], HIGH * steady);
  return Math.abs(to - from) / (HIGH - LOW);
}

/**
 * Ramps of a recorded run, from its output frequency or, where none was recorded, from the shaft.
 *
 * @returns undefined where neither was recorded, or nothing moved
 * @example recordedRamps(recording)?.upS // 4.9
 */
export function recordedRamps({ points }: Recording): RecordedRamps | undefined {
  const of = points.some((p) => p.hz !== null) ? 'hz' : 'rpm';
  const own = points.flatMap((p): Point[] => {
    const y = p[of];
    return y === null ? [] : [{ t: p.t, y: Math.abs(y) }];
  });
  const peak = highest(own.map((p) => p.y)) ?? 0;
  if (peak === 0) return undefined;
  const held = own
    .map((p) => p.y)
    .filter((y) => y >= HELD * peak)
    .sort((a, b) => a - b);
  const steady = held[Math.floor(held.length / 2)];
  return {
    of,
    upS: riseOf(own, steady) ?? null,
    downS: riseOf([...own].reverse(), steady) ?? null,
    steady,
    overshootPct: (100 * (peak - steady)) / steady,
    peakA: highest(points.map((p) => p.amps)),
    peakLinkV: highest(points.map((p) => p.linkV)),
  };
}
