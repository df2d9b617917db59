import type { Trace } from '@tactron/core/rehearsal';

/** Index of the last piece that begins at or before t; −1 before the first. */
export function pieceAt(times: ArrayLike<number>, t: number): number {
  let low = 0;
  let high = times.length - 1;
  let found = -1;
  while (low <= high) {
    const mid = (low + high) >> 1;
    if (times[mid] <= t) {
      found = mid;
      low = mid + 1;
    } else high = mid - 1;
  }
  return found;
}

type Signals = Pick<Trace, 'signals' | 'segments'>;

/** Value of a signal of the frame at t; 0 where the frame has no such signal. */
export function valueAt(trace: Signals, id: string, t: number): number {
  const s = trace.segments[trace.signals.findIndex((spec) => spec.id === id)];
  const k = s ? pieceAt(s.t, t) : -1;
  if (k < 0) return 0;
  const tau = (t - s.t[k]) / 1e6;
  return s.y[k] + (s.dy[k] + (s.ddy[k] * tau) / 2) * tau;
}

/** Voltage between two landings of the frame at t; null where nothing joins them. */
export function voltsBetween(
  trace: Pick<Trace, 'instants' | 'solutions'>,
  plus: number,
  minus: number,
  t: number,
): { dc: number; ac: number } | null {
  const k = pieceAt(trace.instants.t, t);
  const s = k < 0 ? undefined : trace.solutions[trace.instants.solution[k]];
  if (!s || s.island[plus] !== s.island[minus]) return null;
  const tau = (t - trace.instants.t[k]) / 1e6;
  return {
    dc: s.volts[plus] - s.volts[minus] + (s.slope[plus] - s.slope[minus]) * tau,
    ac: Math.hypot(s.acRe[plus] - s.acRe[minus], s.acIm[plus] - s.acIm[minus]),
  };
}

/** The part of a signal between two times as an SVG path; curves are drawn through three points a piece. */
export function lanePath(
  trace: Signals,
  id: string,
  from: number,
  to: number,
  width: number,
  height: number,
  low: number,
  high: number,
): string {
  const s = trace.segments[trace.signals.findIndex((spec) => spec.id === id)];
  if (!s || to <= from) return '';
  const x = (t: number): string => (((t - from) / (to - from)) * width).toFixed(1);
  const y = (v: number): string =>
    (height - 3 - ((v - low) / (high - low || 1)) * (height - 6)).toFixed(1);
  let path = '';
  for (let k = Math.max(0, pieceAt(s.t, from)); k < s.t.length && s.t[k] <= to; k++) {
    const begin = Math.max(from, s.t[k]);
    const end = Math.min(to, s.t[k + 1] ?? to);
    if (end < begin) continue;
    const at = (t: number): number => {
      const tau = (t - s.t[k]) / 1e6;
      return s.y[k] + (s.dy[k] + (s.ddy[k] * tau) / 2) * tau;
    };
    path += `${path ? 'L' : 'M'}${x(begin)} ${y(at(begin))}`;
    if (s.ddy[k] !== 0)
      for (let i = 1; i < 8; i++)
        path += `L${x(begin + ((end - begin) * i) / 8)} ${y(at(begin + ((end - begin) * i) / 8))}`;
    path += `L${x(end)} ${y(at(end))}`;
  }
  return path;
}
