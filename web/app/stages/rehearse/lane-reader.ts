import { pieceAt, signalAt, type Trace } from '@tactron/core/trace';

type Signals = Pick<Trace, 'signals' | 'segments'>;

/** Value of a signal of the frame at t; 0 where the frame has no such signal. */
export function valueAt(trace: Signals, id: string, t: number): number {
  return trace.signals.some((spec) => spec.id === id) ? signalAt(trace, id, t) : 0;
}

/** Where a value of a lane is drawn. */
export const laneY = (v: number, low: number, high: number, height: number): number =>
  height - 3 - ((v - low) / (high - low || 1)) * (height - 6);

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
  const y = (v: number): string => laneY(v, low, high, height).toFixed(1);
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
