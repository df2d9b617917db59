import { linkRise, linkVolts, type LinkBraking } from '../drive/index.js';
import type { Stretch } from '../numeric/index.js';
import { appendStretch, type SignalTrace, type Trace } from '../trace/index.js';

/** Voltage below which a link counts as discharged, V: IEC 61800-5-1. */
const DISCHARGED_V = 60;
/** Pieces in which a discharge is drawn. */
const DISCHARGE_PIECES = 12;

/** State of the link while the device goes through its states: without charge, fed, or left to itself since a moment. */
type Feed = 'none' | 'fed' | 'left';

/**
 * Voltage of the DC link over a rehearsal, from the states and the frequency of the device: √2·U while it is fed, what comes
 * back from the load on top, the run-down of its capacitors without supply by the time its plate names. What it is in the few
 * milliseconds between the loss of the supply and the undervoltage threshold is not drawn.
 *
 * @example linkLane(session.trace, b).y[0] // 0 before power
 */
export function linkLane(trace: Pick<Trace, 'signals' | 'segments'>, b: LinkBraking): SignalTrace {
  const lane: SignalTrace = { t: [], y: [], dy: [], ddy: [] };
  const of = (id: string): { states: readonly string[]; s: SignalTrace } => {
    const i = trace.signals.findIndex((spec) => spec.id === id);
    return { states: trace.signals[i].states ?? [], s: trace.segments[i] };
  };
  const [state, hz] = [of('device.state'), of('device.hz')];
  const cuts = [...new Set([...state.s.t, ...hz.s.t])].sort((x, y) => x - y);
  let feed: Feed = 'none';
  let joules = 0;
  let [i, k] = [-1, -1];
  cuts.forEach((from, n) => {
    const to = cuts[n + 1] ?? Infinity;
    while (state.s.t[i + 1] <= from) i++;
    while (hz.s.t[k + 1] <= from) k++;
    const name = state.states[state.s.y[Math.max(0, i)]] ?? 'off';
    const after = state.states[state.s.y[i + 1]];
    const before: Feed = feed;
    feed = fed(name, after) ? 'fed' : before === 'none' ? 'none' : 'left';
    if (feed === 'none') add(lane, from, 0, 0);
    else if (feed === 'left') {
      if (before === 'fed') runDown(lane, from, b);
      joules = 0;
    } else joules = follow(lane, hz.s, Math.max(0, k), from, to, joules, b);
  });
  return lane;
}

const unfed: readonly (string | undefined)[] = ['off', 'noMains', 'destroyed'];

/** Whether the mains feed the link; a device that powers up on its control supply alone goes on without mains. */
const fed = (state: string, after: string | undefined): boolean =>
  state === 'poweringUp' ? !unfed.includes(after) : !unfed.includes(state);

const add = (lane: SignalTrace, t: number, y: number, dy: number): void => {
  while (lane.t.length > 0 && lane.t[lane.t.length - 1] > t)
    for (const list of [lane.t, lane.y, lane.dy, lane.ddy]) list.pop();
  appendStretch(lane, { t0: t, y, dy, ddy: 0 }, t);
};

/** A line from one voltage to another. */
const line = (lane: SignalTrace, t: number, y: number, until: number, then: number): void =>
  add(lane, t, y, until > t ? ((then - y) / (until - t)) * 1e6 : 0);

/** Draws the link along one piece of the frequency. @returns the energy it ends with */
function follow(
  lane: SignalTrace,
  s: SignalTrace,
  k: number,
  from: number,
  to: number,
  joules: number,
  b: LinkBraking,
): number {
  const tau = (from - s.t[k]) / 1e6;
  const stretch: Stretch = {
    t0: from,
    y: s.y[k] + (s.dy[k] + (s.ddy[k] * tau) / 2) * tau,
    dy: s.dy[k] + s.ddy[k] * tau,
    ddy: s.ddy[k],
  };
  // The last piece goes on for ever: as far as the link needs to come to rest.
  const rests = Math.ceil(((joules + 1) / Math.max(1, b.idleW)) * 1e6);
  const endUs = Number.isFinite(to) ? to : from + rests;
  const samples = linkRise(b, { stretches: [stretch], endUs, rest: undefined }, joules);
  samples.forEach((x, n) => {
    const next = samples[n + 1] ?? x;
    line(lane, x.t, linkVolts(b, x.joules), next.t, linkVolts(b, next.joules));
  });
  return samples[samples.length - 1].joules;
}

/** Run-down without supply: from the undervoltage threshold to discharged in the time of the plate, as a capacitor does. */
function runDown(lane: SignalTrace, from: number, { lostV: begin, dischargeS }: LinkBraking): void {
  const tau = dischargeS / Math.log(begin / DISCHARGED_V);
  const at = (n: number): number => (n * dischargeS) / DISCHARGE_PIECES;
  const volts = (n: number): number => begin * Math.exp(-at(n) / tau);
  for (let n = 0; n < DISCHARGE_PIECES; n++)
    line(lane, from + at(n) * 1e6, volts(n), from + at(n + 1) * 1e6, volts(n + 1));
  add(lane, from + dischargeS * 1e6, DISCHARGED_V, 0);
}
