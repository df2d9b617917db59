import type { Trace } from './trace.js';

/** What changed of a trace from a moment on: sent instead of the whole, and joined to what is there. */
export interface TraceWindow {
  /** Everything of the trace from this moment on is in the window; what lies before stays. µs. */
  readonly fromUs: number;
  /** Solutions below this index stay. */
  readonly keptSolutions: number;
  readonly part: Trace;
}

/** First place in a list of times at or after t. */
function firstFrom(times: readonly number[], t: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (times[mid] < t) low = mid + 1;
    else high = mid;
  }
  return low;
}

/**
 * The part of a trace from a moment on.
 *
 * @param keptSolutions solutions that the other side has already, and that still stand
 * @example joinWindow(old, traceWindow(now, 3_000_000, 12)) // equal to now
 */
export function traceWindow(trace: Trace, fromUs: number, keptSolutions: number): TraceWindow {
  const { segments, instants, solutions, events } = trace;
  const at = firstFrom(instants.t, fromUs);
  return {
    fromUs,
    keptSolutions,
    part: {
      ...trace,
      segments: segments.map(({ t, y, dy, ddy }) => {
        const k = firstFrom(t, fromUs);
        return { t: t.slice(k), y: y.slice(k), dy: dy.slice(k), ddy: ddy.slice(k) };
      }),
      instants: { t: instants.t.slice(at), solution: instants.solution.slice(at) },
      solutions: solutions.slice(keptSolutions),
      events: events.filter((e) => e.t >= fromUs),
    },
  };
}

/** A trace with everything from a moment on replaced by a window. */
export function joinWindow(trace: Trace, { fromUs, keptSolutions, part }: TraceWindow): Trace {
  const { segments, instants, solutions, events } = trace;
  const at = firstFrom(instants.t, fromUs);
  return {
    ...part,
    segments: part.segments.map((now, i) => {
      const before = segments[i];
      const k = firstFrom(before.t, fromUs);
      const joined = (old: readonly number[], more: readonly number[]): number[] => [
        ...old.slice(0, k),
        ...more,
      ];
      return {
        t: joined(before.t, now.t),
        y: joined(before.y, now.y),
        dy: joined(before.dy, now.dy),
        ddy: joined(before.ddy, now.ddy),
      };
    }),
    instants: {
      t: [...instants.t.slice(0, at), ...part.instants.t],
      solution: [...instants.solution.slice(0, at), ...part.instants.solution],
    },
    solutions: [...solutions.slice(0, keptSolutions), ...part.solutions],
    events: [...events.filter((e) => e.t < fromUs), ...part.events],
  };
}
