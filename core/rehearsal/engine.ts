import { Circuit, type Mode } from '../circuit/index.js';
import type { Installation } from '../installation/index.js';
import type { Act } from '../job/index.js';
import type { Board, Device, Probe } from './device.js';
import { electricalKey, isZero, sameArray, sameList, sameVolts } from './boards.js';
import { modelOf } from './models/index.js';
import { wiresModel } from './models/passive.js';
import {
  appendStretch,
  type LandingVolts,
  type SignalTrace,
  type Trace,
  type TraceEvent,
} from './trace.js';

/** Rounds at one instant after which the circuit is taken to be chasing itself. */
const MOST_ROUNDS = 50;

/** Slopes below this are rounding of a resting voltage, V/s: they would reach a threshold in years. */
const LEAST_SLOPE = 1e-6;

/** Everything that changes while a rehearsal runs; device states are immutable, so a copy holds references only. */
export interface EngineState {
  t: number;
  states: readonly unknown[];
  senses: readonly (readonly number[])[];
  /** Next time at which each device changes by itself. */
  wakes: readonly number[];
  modes: readonly Mode[] | undefined;
  solution: number;
  lengths: { segments: number[]; instants: number; events: number; solutions: number };
}

export interface EngineOptions {
  /** Factorise anew each time; for tests. */
  readonly cached?: boolean;
  /** Order in which devices are laid in; for tests: results do not depend on it. */
  readonly order?: readonly number[];
  /** Signals that are recorded; all of them where absent. */
  readonly only?: readonly string[];
  /** Hears of every network the run goes through. */
  readonly onSolved?: (solved: SolvedMoment) => void;
  /** Hears of every instant when it has come to rest. */
  readonly onSettled?: (state: EngineState) => void;
}

/** A network of the run: what the devices were, and what each of them sensed in it. */
export interface SolvedMoment {
  readonly t: number;
  /** The same for networks that are electrically the same, but for the analogue output. */
  readonly key: string;
  readonly states: readonly unknown[];
  readonly senses: readonly (readonly number[])[];
  readonly modes: readonly Mode[] | undefined;
}

/** An act at its time in integer microseconds. */
export interface TimedAct {
  readonly t: number;
  readonly act: Act;
}

/**
 * Runs an installation through time, from event to event. There is no event queue: the next time is the least of the next
 * act, all wakes and all threshold crossings.
 */
export class Engine {
  readonly trace: Trace;
  state: EngineState;
  private readonly devices: Device<unknown>[];
  private readonly circuit: Circuit;
  private readonly options: EngineOptions;
  private readonly shown: readonly number[];
  /** Devices of which anything is recorded. */
  private readonly watched: readonly boolean[];
  private readonly board: Board;
  private readonly lastBoard: {
    g: Float64Array;
    emf: Float64Array;
    slope: Float64Array;
    re: Float64Array;
    im: Float64Array;
  };
  private readonly noVolts: Float64Array;
  private fresh = true;
  private readonly stamped: unknown[] = [];
  private seen: unknown[] = [];

  constructor(installation: Installation, options: EngineOptions = {}) {
    const devices = [
      wiresModel(installation.wires),
      ...installation.devices.map(modelOf),
    ] as Device<unknown>[];
    this.options = options;
    this.shown = installation.devices.flatMap((d) =>
      d.kind === 'drive' && d.output ? [d.output.edge] : [],
    );
    this.devices = options.order ? options.order.map((i) => devices[i]) : devices;
    this.circuit = new Circuit(
      { nodeCount: installation.landings.length, ...installation },
      { cached: options.cached },
    );
    const n = installation.edgeA.length;
    const zeros = (): Float64Array => new Float64Array(n);
    this.noVolts = new Float64Array(installation.landings.length);
    this.board = { ...this.circuit.emptyStamp(), emfSlope: zeros(), acRe: zeros(), acIm: zeros() };
    this.lastBoard = { g: zeros(), emf: zeros(), slope: zeros(), re: zeros(), im: zeros() };
    this.watched = this.devices.map((d) => d.signals.some((s) => this.recorded(s.id)));
    const signals = this.devices.flatMap((d) => d.signals);
    const segments: SignalTrace[] = signals.map(() => ({ t: [], y: [], dy: [], ddy: [] }));
    this.trace = {
      installation: installation.hash,
      endUs: 0,
      signals,
      segments,
      instants: { t: [], solution: [] },
      solutions: [],
      events: [],
    };
    this.state = {
      t: 0,
      states: this.devices.map((d) => d.init()),
      senses: this.devices.map(() => []),
      wakes: this.devices.map(() => 0),
      modes: undefined,
      solution: -1,
      lengths: this.lengths(),
    };
    this.settle(0, []);
  }

  /** Moment of the next change after the present one that needs no act; Infinity when everything rests. */
  nextChange(): number {
    return Math.min(...this.state.wakes, this.nextCrossing());
  }

  /** Takes the rehearsal to `until`, applying the acts on the way. Acts must be in order and not before the present. */
  runTo(until: number, acts: readonly TimedAct[]): void {
    let at = 0;
    for (;;) {
      const nextAct = at < acts.length ? Math.max(acts[at].t, this.state.t) : Infinity;
      const next = Math.min(nextAct, this.nextChange());
      if (next > until) break;
      const now: Act[] = [];
      while (at < acts.length && acts[at].t <= next) now.push(acts[at++].act);
      this.settle(next, now);
    }
    this.state = { ...this.state, t: Math.max(this.state.t, until) };
    (this.trace as { endUs: number }).endUs = until;
  }

  /** State of a device now. */
  stateOf(id: string): unknown {
    return this.state.states[this.devices.findIndex((d) => d.id === id)];
  }

  /** Conductance of every edge now: 0 where it is open. */
  conductances(): Float64Array {
    this.solve(this.state.t);
    return this.board.g.slice();
  }

  /** Direct voltage between two landings now; null where nothing joins them. */
  voltsBetween(plus: number, minus: number): number | null {
    return this.probe().volts(plus, minus);
  }

  /** Whether any source gives anything now: then no resistance can be measured. */
  isLive(): boolean {
    this.solve(this.state.t);
    const { emf, acRe, acIm, modal } = this.board;
    return (
      !isZero(emf) ||
      !isZero(acRe) ||
      !isZero(acIm) ||
      modal.some((m) => m.volts !== 0 && m.amps !== 0)
    );
  }

  snapshot(): EngineState {
    return { ...this.state, lengths: this.lengths() };
  }

  restore(s: EngineState): void {
    const { segments, instants, events, solutions } = this.trace;
    segments.forEach((segment, i) => {
      for (const list of [segment.t, segment.y, segment.dy, segment.ddy])
        list.length = s.lengths.segments[i];
    });
    instants.t.length = instants.solution.length = s.lengths.instants;
    events.length = s.lengths.events;
    solutions.length = s.lengths.solutions;
    this.state = { ...s };
    this.fresh = true;
    this.seen = [...s.states];
  }

  /**
   * Goes on from a moment of another engine over the same devices; devices that this one has beyond them are in their
   * first state. The trace begins there.
   */
  adopt(from: EngineState): void {
    const more = this.devices.slice(from.states.length);
    this.restore({
      ...from,
      states: [...from.states, ...more.map((d) => d.init())],
      senses: [...from.senses, ...more.map(() => [])],
      wakes: [...from.wakes, ...more.map(() => Infinity)],
      solution: -1,
      lengths: { segments: this.trace.segments.map(() => 0), instants: 0, events: 0, solutions: 0 },
    });
    this.seen = [];
    this.solve(from.t);
  }

  /**
   * Whether every device would sense the same in this engine's network as it did in another's, with some acts done.
   *
   * @param acts what is otherwise here: a wire broken, a contact closed
   */
  sensesLike(solved: SolvedMoment, acts: readonly Act[]): boolean {
    const states = this.devices.map((d, i) =>
      acts.reduce<unknown>(
        (s, act) => d.act(s, act),
        i < solved.states.length ? solved.states[i] : d.init(),
      ),
    );
    this.trace.solutions.length =
      this.trace.instants.t.length =
      this.trace.instants.solution.length =
        0;
    this.state = { ...this.state, t: solved.t, states, modes: solved.modes, solution: -1 };
    this.fresh = true;
    this.solve(solved.t);
    const probe = this.probe();
    return solved.senses.every((before, i) =>
      sameList(this.devices[i].sense(states[i], probe), before),
    );
  }

  private lengths(): EngineState['lengths'] {
    const { segments, instants, events, solutions } = this.trace;
    return {
      segments: segments.map((s) => s.t.length),
      instants: instants.t.length,
      events: events.length,
      solutions: solutions.length,
    };
  }

  private settle(t: number, acts: readonly Act[]): void {
    const { devices } = this;
    const due = new Uint8Array(devices.length);
    for (let i = 0; i < due.length; i++) if (this.state.wakes[i] <= t) due[i] = 1;
    const acted = this.state.states.slice();
    for (const act of acts) {
      for (let i = 0; i < due.length; i++) {
        const next = devices[i].act(acted[i], act);
        if (next !== acted[i]) due[i] = 1;
        acted[i] = next;
      }
      this.trace.events.push({ t, of: ownerOf(act), what: act.do });
    }
    this.state = { ...this.state, t, states: acted };
    for (let round = 0; this.round(t, due); round++) {
      due.fill(0);
      if (round >= MOST_ROUNDS) {
        this.trace.events.push({ t, of: { kind: 'device', id: 'wires' }, what: 'unsettled' });
        break;
      }
    }
    this.state = { ...this.state, wakes: devices.map((d, i) => d.wake(this.state.states[i], t)) };
    this.record(t);
    this.options.onSettled?.(this.snapshot());
  }

  /** Solves, lets every device sense that one solution, and steps those that are due. @returns whether anything changed */
  private round(t: number, due: Uint8Array): boolean {
    this.solve(t);
    const probe = this.probe();
    const { states, senses } = this.state;
    const sensed = senses.slice();
    const stepped = states.slice();
    let changed = false;
    for (let i = 0; i < due.length; i++) {
      const now = this.devices[i].sense(states[i], probe);
      const same = sameList(now, senses[i]);
      sensed[i] = same ? senses[i] : now;
      if (same && due[i] === 0) continue;
      stepped[i] = this.devices[i].step(states[i], sensed[i], t);
      if (!same || stepped[i] !== states[i]) changed = true;
    }
    this.options.onSolved?.({
      t,
      key: electricalKey(this.board, this.shown),
      states,
      senses: sensed,
      modes: this.state.modes,
    });
    if (changed) this.state = { ...this.state, states: stepped, senses: sensed };
    return changed;
  }

  /** Adds what can be seen of every device that changed to the trace. */
  private record(t: number): void {
    let signal = 0;
    for (let i = 0; i < this.devices.length; i++) {
      const d = this.devices[i];
      const now = this.state.states[i];
      if (this.watched[i] && (d.moves || this.seen[i] !== now)) {
        const stretches = d.observe(now, t);
        for (let k = 0; k < stretches.length; k++)
          if (this.recorded(d.signals[k].id))
            appendStretch(this.trace.segments[signal + k], stretches[k], t);
      }
      this.seen[i] = now;
      signal += d.signals.length;
    }
  }

  private recorded(id: string): boolean {
    return this.options.only === undefined || this.options.only.includes(id);
  }

  private solve(t: number): void {
    const { board, lastBoard } = this;
    for (let i = 0; i < this.devices.length; i++) {
      const now = this.state.states[i];
      if (this.fresh || this.stamped[i] !== now || this.devices[i].moves)
        this.devices[i].stamp(now, t, board);
      this.stamped[i] = now;
    }
    const last = this.state.solution >= 0 ? this.trace.solutions[this.state.solution] : undefined;
    const before = this.fresh ? undefined : last;
    const sameSources =
      before !== undefined && this.modalUnchanged() && sameArray(board.emf, lastBoard.emf);
    const sameSlope = before !== undefined && sameArray(board.emfSlope, lastBoard.slope);
    const sameAlternating =
      before !== undefined &&
      sameArray(board.acRe, lastBoard.re) &&
      sameArray(board.acIm, lastBoard.im);
    if (sameSources && sameSlope && sameAlternating && sameArray(board.g, lastBoard.g)) return;
    const solution = this.circuit.solve(board, this.state.modes);
    const sameNetwork = before !== undefined && sameArray(board.g, lastBoard.g);
    const none = this.noVolts;
    const respond = (
      sources: Float64Array,
      slot: number,
      kept: Float64Array | undefined,
    ): Float64Array => kept ?? (isZero(sources) ? none : this.circuit.respond(sources, slot));
    const landing: LandingVolts = {
      volts: solution.volts,
      slope: respond(board.emfSlope, 0, sameNetwork && sameSlope ? before.slope : undefined),
      acRe: respond(board.acRe, 1, sameNetwork && sameAlternating ? before.acRe : undefined),
      acIm: respond(board.acIm, 2, sameNetwork && sameAlternating ? before.acIm : undefined),
      island: solution.island,
    };
    if (!solution.settled)
      this.trace.events.push({ t, of: { kind: 'device', id: 'wires' }, what: 'unsettled' });
    lastBoard.g.set(board.g);
    lastBoard.emf.set(board.emf);
    lastBoard.slope.set(board.emfSlope);
    lastBoard.re.set(board.acRe);
    lastBoard.im.set(board.acIm);
    this.rememberModal();
    this.fresh = false;
    this.keepSolution(t, landing);
    this.state = { ...this.state, modes: solution.modes };
  }

  private modalBefore: { volts: number; amps: number; g: number }[] = [];
  private rememberModal(): void {
    this.modalBefore = this.board.modal.map(({ volts, amps, g }) => ({ volts, amps, g }));
  }
  private modalUnchanged(): boolean {
    return this.board.modal.every((m, i) => {
      const before = this.modalBefore[i];
      return m.volts === before.volts && m.amps === before.amps && m.g === before.g;
    });
  }

  private keepSolution(t: number, landing: LandingVolts): void {
    const { instants, solutions } = this.trace;
    const last = solutions[this.state.solution];
    if (last && sameVolts(last, landing) && !landing.slope.some((x) => x !== 0)) return;
    const index = solutions.push(landing) - 1;
    if (instants.t[instants.t.length - 1] === t)
      instants.solution[instants.solution.length - 1] = index;
    else {
      instants.t.push(t);
      instants.solution.push(index);
    }
    this.state = { ...this.state, solution: index };
  }

  private probe(): Probe {
    const s = this.trace.solutions[this.state.solution];
    const joined = (plus: number, minus: number): boolean => s.island[plus] === s.island[minus];
    return {
      volts: (plus, minus) => (joined(plus, minus) ? s.volts[plus] - s.volts[minus] : null),
      acVolts: (plus, minus) =>
        joined(plus, minus)
          ? Math.hypot(s.acRe[plus] - s.acRe[minus], s.acIm[plus] - s.acIm[minus])
          : null,
    };
  }

  /** First moment after the present at which a sloping voltage passes a threshold, in closed form. */
  private nextCrossing(): number {
    const { t, solution, states } = this.state;
    const s = this.trace.solutions[solution];
    if (!s || !s.slope.some((x) => x !== 0)) return Infinity;
    const since = (t - this.trace.instants.t[this.trace.instants.t.length - 1]) / 1e6;
    let next = Infinity;
    this.devices.forEach((d, i) => {
      for (const { plus, minus, volts } of d.thresholds(states[i])) {
        const slope = s.slope[plus] - s.slope[minus];
        if (Math.abs(slope) < LEAST_SLOPE || s.island[plus] !== s.island[minus]) continue;
        const wait = (volts - (s.volts[plus] - s.volts[minus] + slope * since)) / slope;
        if (wait > 0) next = Math.min(next, Math.max(t + 1, Math.ceil(t + wait * 1e6)));
      }
    });
    return next;
  }
}

function ownerOf(act: Act): TraceEvent['of'] {
  if (act.do === 'breakWire' || act.do === 'mendWire') return { kind: 'wire', id: act.wire };
  if (act.do === 'hook') return { kind: 'landing', id: act.a };
  return {
    kind: 'device',
    id:
      'device' in act && act.device
        ? act.device
        : act.do === 'key' || act.do === 'link'
          ? 'drive'
          : 'supply',
  };
}
