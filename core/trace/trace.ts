import type { SignalSpec } from '../circuit/index.js';
import type { Stretch } from '../numeric/index.js';
import type { Where } from '../job/index.js';

/** Voltages of all landings at an instant; alternating parts are zero where there is no alternating source. */
export interface LandingVolts {
  readonly volts: Float64Array;
  readonly slope: Float64Array;
  readonly acRe: Float64Array;
  readonly acIm: Float64Array;
  readonly island: Int32Array;
}

export interface TraceEvent {
  readonly t: number;
  readonly of: Where;
  readonly what: string;
}

/** A signal over time: piece k holds from t[k] until the next. */
export interface SignalTrace {
  readonly t: number[];
  readonly y: number[];
  readonly dy: number[];
  readonly ddy: number[];
}

/** What happened in a rehearsal. The same installation and script give the same trace, bit for bit. */
export interface Trace {
  readonly endUs: number;
  readonly signals: readonly SignalSpec[];
  readonly segments: readonly SignalTrace[];
  /** Instants at which the voltages changed, and which solution holds from there. */
  readonly instants: { readonly t: number[]; readonly solution: number[] };
  readonly solutions: LandingVolts[];
  readonly events: TraceEvent[];
}

/** A trace up to some lengths of its lists, apart from the one it was copied from. */
export function copyTrace(
  trace: Trace,
  upTo: { segments: readonly number[]; instants: number; events: number; solutions: number },
): Trace {
  return {
    ...trace,
    segments: trace.segments.map(({ t, y, dy, ddy }, i) => {
      const n = upTo.segments[i];
      return { t: t.slice(0, n), y: y.slice(0, n), dy: dy.slice(0, n), ddy: ddy.slice(0, n) };
    }),
    instants: {
      t: trace.instants.t.slice(0, upTo.instants),
      solution: trace.instants.solution.slice(0, upTo.instants),
    },
    solutions: trace.solutions.slice(0, upTo.solutions),
    events: trace.events.slice(0, upTo.events),
  };
}

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

/** Value of a signal at t. */
export function signalAt(
  trace: Pick<Trace, 'signals' | 'segments'>,
  id: string,
  t: number,
): number {
  const index = trace.signals.findIndex((s) => s.id === id);
  if (index < 0) throw new RangeError(`the trace has no signal "${id}"`);
  const s = trace.segments[index];
  const k = pieceAt(s.t, t);
  if (k < 0) return 0;
  const tau = (t - s.t[k]) / 1e6;
  return s.y[k] + (s.dy[k] + (s.ddy[k] * tau) / 2) * tau;
}

/** Name of a state signal's value at t. */
export function stateAt(trace: Pick<Trace, 'signals' | 'segments'>, id: string, t: number): string {
  const spec = trace.signals.find((s) => s.id === id);
  return spec?.states?.[signalAt(trace, id, t)] ?? '';
}

/** Direct and alternating voltage between two landings at t; null where nothing joins them. */
export function voltsAt(
  trace: Pick<Trace, 'instants' | 'solutions'>,
  plus: number,
  minus: number,
  t: number,
): { dc: number; ac: number } | null {
  const k = pieceAt(trace.instants.t, t);
  if (k < 0) return null;
  const s = trace.solutions[trace.instants.solution[k]];
  if (s.island[plus] !== s.island[minus]) return null;
  const tau = (t - trace.instants.t[k]) / 1e6;
  const dc = s.volts[plus] - s.volts[minus] + (s.slope[plus] - s.slope[minus]) * tau;
  return { dc, ac: Math.hypot(s.acRe[plus] - s.acRe[minus], s.acIm[plus] - s.acIm[minus]) };
}

/** Appends a stretch to a signal unless it only continues the piece before. */
export function appendStretch(s: SignalTrace, stretch: Stretch, t: number): void {
  const last = s.t.length - 1;
  const tau = (t - stretch.t0) / 1e6;
  const y = stretch.y + (stretch.dy + (stretch.ddy * tau) / 2) * tau;
  const dy = stretch.dy + stretch.ddy * tau;
  if (last >= 0 && s.ddy[last] === stretch.ddy) {
    const before = (t - s.t[last]) / 1e6;
    const dyThere = s.dy[last] + s.ddy[last] * before;
    const yThere = s.y[last] + (s.dy[last] + (s.ddy[last] * before) / 2) * before;
    if (Math.abs(dyThere - dy) <= 1e-9 && Math.abs(yThere - y) <= 1e-9) return;
  }
  if (last >= 0 && s.t[last] === t) {
    s.t.pop();
    s.y.pop();
    s.dy.pop();
    s.ddy.pop();
  }
  s.t.push(t);
  s.y.push(y);
  s.dy.push(dy);
  s.ddy.push(stretch.ddy);
}

/** A trace of these signals in which nothing has happened yet. */
export function emptyTrace(signals: Trace['signals']): Trace {
  const segments: SignalTrace[] = signals.map(() => ({ t: [], y: [], dy: [], ddy: [] }));
  return {
    endUs: 0,
    signals,
    segments,
    instants: { t: [], solution: [] },
    solutions: [],
    events: [],
  };
}
