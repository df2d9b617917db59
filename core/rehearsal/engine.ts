import { type Deed, type Device, type Probe } from '../circuit/index.js';
import { SWITCHES, WIRES, type Installation } from '../installation/index.js';
import { electricalKey, isZero, sameList, sameVolts } from './boards.js';
import type {
  EngineOptions,
  EngineState,
  KeptBoard,
  SolvedMoment,
  TimedAct,
} from './engine-state.js';
import { modelsOf } from './models.js';
import { Network } from './network.js';
import { probeOf } from './probe.js';
import {
  appendStretch,
  copyTrace,
  emptyTrace,
  type LandingVolts,
  type Trace,
  type TraceEvent,
} from '../trace/index.js';

/** Rounds at one instant after which the circuit is taken to be chasing itself. */
const MOST_ROUNDS = 50;

/** Slopes below this are rounding of a resting voltage, V/s: they would reach a threshold in years. */
const LEAST_SLOPE = 1e-6;

/**
 * Runs an installation through time, from event to event. There is no event queue: the next time is the least of the next
 * act, all wakes and all threshold crossings.
 */
export class Engine {
  trace: Trace;
  state: EngineState;
  private readonly devices: readonly Device<unknown>[];
  private readonly byId: ReadonlyMap<string, number>;
  /** Devices that step after each device has changed. */
  private readonly heardBy: readonly (readonly number[])[];
  private readonly switches: number;
  /** Called at every solved network; may be taken away and put back between runs. */
  onSolved: EngineOptions['onSolved'];
  private readonly options: EngineOptions;
  private readonly shown: readonly number[];
  /** Edges that each device writes on. */
  private readonly edgesOf: readonly (readonly number[])[];
  /** Signals of each device that are recorded, by their place among its own; none where nothing is. */
  private readonly watched: readonly (readonly number[])[];
  private readonly firstSignal: readonly number[];
  private readonly network: Network;
  private fresh = true;
  /** The network was written otherwise since it was last told of. */
  private unheard = true;
  private readonly stamped: unknown[] = [];
  private seen: unknown[] = [];
  /** Devices that step in the next round, and in this one. */
  private due: Uint8Array;
  private now: Uint8Array;
  private readonly peers = (id: string): unknown => this.state.states[this.byId.get(id) ?? -1];
  /** The solution that was measured last, and what measures it. */
  private probed: { readonly solution: LandingVolts; readonly probe: Probe } | undefined;
  /** State and solution at which each device last sensed. */
  private readonly sensedState: unknown[] = [];
  private readonly sensedIn: (LandingVolts | undefined)[] = [];

  constructor(installation: Installation, options: EngineOptions = {}) {
    const devices = modelsOf(installation);
    this.options = options;
    this.onSolved = options.onSolved;
    const { output } = installation.device;
    this.shown = output ? [output.edge] : [];
    this.devices = options.order ? options.order.map((i) => devices[i]) : devices;
    this.byId = new Map(this.devices.map((d, i) => [d.id, i]));
    const heardBy: number[][] = this.devices.map(() => []);
    this.devices.forEach(({ listens }, k) => {
      for (const id of listens) heardBy[this.byId.get(id) ?? -1]?.push(k);
    });
    this.heardBy = heardBy;
    this.switches = this.byId.get(SWITCHES) ?? -1;
    this.due = new Uint8Array(this.devices.length);
    this.now = new Uint8Array(this.devices.length);
    this.network = new Network(
      { nodeCount: installation.landings.length, ...installation },
      { cached: options.cached },
    );
    this.edgesOf = edgesByDevice(this.devices, installation);
    const signals = this.devices.flatMap((d) => d.signals);
    const { only } = options;
    this.watched = this.devices.map((d) =>
      d.signals.flatMap((s, k) => (only === undefined || only.includes(s.id) ? [k] : [])),
    );
    let first = 0;
    this.firstSignal = this.devices.map((d) => {
      first += d.signals.length;
      return first - d.signals.length;
    });
    this.trace = emptyTrace(signals);
    this.state = this.firstState();
    this.settle(0, []);
  }

  private firstState(): EngineState {
    return {
      t: 0,
      states: this.devices.map((d) => d.init()),
      senses: this.devices.map(() => []),
      wakes: this.devices.map(() => 0),
      modes: undefined,
      solution: -1,
      lengths: this.lengths(),
    };
  }

  /** Moment of the next change after the present one that needs no act; Infinity when everything rests. */
  nextChange(): number {
    let next = this.nextCrossing();
    for (const wake of this.state.wakes) if (wake < next) next = wake;
    return next;
  }

  /** Takes the rehearsal to `until`, applying the acts on the way. Acts must be in order and not before the present. */
  runTo(until: number, acts: readonly TimedAct[]): void {
    let at = 0;
    for (;;) {
      const nextAct = at < acts.length ? Math.max(acts[at].t, this.state.t) : Infinity;
      const next = Math.min(nextAct, this.nextChange());
      if (next > until) break;
      const now: Deed[] = [];
      while (at < acts.length && acts[at].t <= next) now.push(acts[at++].act);
      this.settle(next, now);
    }
    if (until > this.state.t) this.state = { ...this.state, t: until };
    (this.trace as { endUs: number }).endUs = until;
  }

  /** State of a device now. */
  stateOf(id: string): unknown {
    return this.state.states[this.byId.get(id) ?? -1];
  }

  /** States of all devices now, without what can no longer matter: equal situations are equal. */
  restedStates(): readonly unknown[] {
    const { states, t } = this.state;
    return states.map((s, i) => this.devices[i].rested(s, t));
  }

  /** Conductance of every edge now: 0 where it is open. */
  conductances(): Float64Array {
    this.solve(this.state.t);
    return this.network.board.g.slice();
  }

  /** Direct voltage between two landings now; null where nothing joins them. */
  voltsBetween(plus: number, minus: number): number | null {
    return this.probe().volts(plus, minus);
  }

  /** Whether any source gives anything now: then no resistance can be measured. */
  isLive(): boolean {
    this.solve(this.state.t);
    const { emf, acRe, acIm, modal } = this.network.board;
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

  /** Goes on from a moment of a run of the same installation that another trace has kept; that trace stays as it is. */
  branch(trace: Trace, from: EngineState): void {
    this.trace = copyTrace(trace, from.lengths);
    this.restore(from);
  }

  /** Goes on from a moment of another run; the trace begins there. */
  adopt(from: EngineState): void {
    this.trace = emptyTrace(this.trace.signals);
    this.state = { ...from, solution: -1, lengths: this.lengths() };
    this.fresh = true;
    this.seen = [];
    this.solve(from.t);
  }

  /** The network as it was last written, apart from the board it was written on. */
  keepBoard(): KeptBoard {
    const { g, emf, acRe, acIm, modal } = this.network.board;
    return {
      g: g.slice(),
      emf: emf.slice(),
      acRe: acRe.slice(),
      acIm: acIm.slice(),
      modal: modal.map((m) => ({ ...m })),
    };
  }

  /**
   * Whether every device would sense in a network of another run what it did there, with some edges otherwise. The run of
   * this engine is left as it was, but is to be restored before it goes on.
   */
  sensesLike(
    solved: SolvedMoment & { readonly board: KeptBoard },
    otherwise: readonly { readonly edge: number; readonly g: number }[],
  ): boolean {
    const { board } = this.network;
    const { g, emf, acRe, acIm, modal } = solved.board;
    board.g.set(g);
    board.emf.set(emf);
    modal.forEach((m, i) => (board.modal[i] = { ...m }));
    for (const { edge, g: conductance } of otherwise) board.g[edge] = conductance;
    const probe = probeOf(this.network.solveApart(solved.modes, acRe, acIm));
    for (let i = 0; i < solved.senses.length; i++)
      if (!sameList(this.devices[i].sense(solved.states[i], probe), solved.senses[i])) return false;
    return true;
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

  private settle(t: number, acts: readonly Deed[]): void {
    const { devices, due } = this;
    const before = this.state;
    due.fill(0);
    for (let i = 0; i < due.length; i++) {
      if (before.wakes[i] > t) continue;
      due[i] = 1;
      // Its state may stand while what it shows goes on from a new stretch.
      this.seen[i] = undefined;
    }
    const acted = acts.length > 0 ? before.states.slice() : before.states;
    for (const act of acts) this.apply(act, t, acted as unknown[]);
    this.state = { ...before, t, states: acted };
    for (let round = 0; this.round(t); round++) {
      if (round >= MOST_ROUNDS) {
        this.trace.events.push({ t, of: { kind: 'device', id: WIRES }, what: 'unsettled' });
        break;
      }
    }
    const { states } = this.state;
    const wakes = before.wakes.slice();
    for (let i = 0; i < wakes.length; i++)
      if (wakes[i] <= t || states[i] !== before.states[i]) wakes[i] = devices[i].wake(states[i], t);
    this.state.wakes = wakes;
    this.record(t);
    this.options.onSettled?.(this);
  }

  /** Does an act to every device; those that it changes, and their listeners, are due. */
  private apply(act: Deed, t: number, states: unknown[]): void {
    const { devices } = this;
    for (let i = 0; i < devices.length; i++) {
      const next = devices[i].act(states[i], act, t);
      if (next === states[i]) continue;
      states[i] = next;
      this.due[i] = 1;
      this.hear(i);
    }
    this.trace.events.push({ t, of: ownerOf(act), what: act.do });
  }

  /** Those that listen to a device that changed step next. */
  private hear(changed: number): void {
    const heard = this.heardBy[changed];
    for (let k = 0; k < heard.length; k++) this.due[heard[k]] = 1;
  }

  /** Solves, lets every device sense that one solution, and steps those that are due. @returns whether anything changed */
  private round(t: number): boolean {
    this.solve(t);
    const probe = this.probe();
    const solution = this.trace.solutions[this.state.solution];
    const { states, senses } = this.state;
    let sensed: (readonly number[])[] | undefined;
    let stepped: unknown[] | undefined;
    const now = this.due;
    this.due = this.now;
    this.now = now;
    this.due.fill(0);
    for (let i = 0; i < now.length; i++) {
      let same = true;
      if (this.sensedIn[i] !== solution || this.sensedState[i] !== states[i]) {
        const felt = this.devices[i].sense(states[i], probe);
        same = sameList(felt, senses[i]);
        if (!same) (sensed ??= senses.slice())[i] = felt;
        else {
          this.sensedIn[i] = solution;
          this.sensedState[i] = states[i];
        }
      }
      if (same && now[i] === 0) continue;
      const next = this.devices[i].step(states[i], (sensed ?? senses)[i], t, this.peers);
      if (next !== states[i]) {
        (stepped ??= states.slice())[i] = next;
        this.hear(i);
      }
    }
    if (this.onSolved && this.unheard)
      this.onSolved(
        {
          t,
          key: electricalKey(this.network.board, this.shown),
          states,
          senses: sensed ?? senses,
          modes: this.state.modes,
        },
        this,
      );
    this.unheard = false;
    if (!sensed && !stepped) return false;
    this.state = { ...this.state, states: stepped ?? states, senses: sensed ?? senses };
    return true;
  }

  /** Adds what can be seen of every device that changed to the trace. */
  private record(t: number): void {
    const { states } = this.state;
    for (let i = 0; i < this.devices.length; i++) {
      const d = this.devices[i];
      const now = states[i];
      const watched = this.watched[i];
      if (watched.length > 0 && (d.showsWithTime || this.seen[i] !== now)) {
        const stretches = d.observe(now, t);
        for (const k of watched)
          appendStretch(this.trace.segments[this.firstSignal[i] + k], stretches[k], t);
      }
      this.seen[i] = now;
    }
  }

  /** Writes what every device is into the board. @returns whether anything was written */
  private stamp(t: number): boolean {
    const { states } = this.state;
    // A switch that goes back leaves its edge to whoever owns it.
    const all = this.fresh || this.stamped[this.switches] !== states[this.switches];
    if (all) this.network.wipe();
    let written = false;
    for (let i = 0; i < this.devices.length; i++) {
      const now = states[i];
      if (!all && this.stamped[i] === now && !this.devices[i].stampsWithTime) continue;
      this.devices[i].stamp(now, t, this.network.board);
      if (!all) this.network.wrote(this.edgesOf[i]);
      this.stamped[i] = now;
      written = true;
    }
    // A thrown switch holds its edge against whoever owns it.
    if (written && this.switches >= 0)
      this.devices[this.switches].stamp(states[this.switches], t, this.network.board);
    return written;
  }

  private solve(t: number): void {
    if (!this.stamp(t) && this.state.solution >= 0) return;
    const last = this.state.solution >= 0 ? this.trace.solutions[this.state.solution] : undefined;
    const made = this.network.solve(this.state.modes, this.fresh ? undefined : last);
    if (!made) return;
    if (!made.settled)
      this.trace.events.push({ t, of: { kind: 'device', id: WIRES }, what: 'unsettled' });
    this.fresh = false;
    this.unheard = true;
    this.keepSolution(t, made.landing);
    if (this.state.modes !== made.modes) this.state = { ...this.state, modes: made.modes };
  }

  private keepSolution(t: number, landing: LandingVolts): void {
    const { instants, solutions } = this.trace;
    const last = solutions[this.state.solution];
    if (last && sameVolts(last, landing) && isZero(landing.slope)) return;
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
    const solution = this.trace.solutions[this.state.solution];
    if (this.probed?.solution !== solution) this.probed = { solution, probe: probeOf(solution) };
    return this.probed.probe;
  }

  /** First moment after the present at which a sloping voltage passes a threshold, in closed form. */
  private nextCrossing(): number {
    const { t, solution, states } = this.state;
    const s = this.trace.solutions[solution];
    if (!s || s.slope === this.network.noVolts || isZero(s.slope)) return Infinity;
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

/** Edges by the device that writes on them: of wires it is their part, of links the device. */
function edgesByDevice(
  devices: readonly Device<unknown>[],
  { edges, device }: Installation,
): number[][] {
  const index = new Map(devices.map(({ id }, i) => [id, i]));
  const lists: number[][] = devices.map(() => []);
  edges.forEach(({ of, role }, e) => {
    const writes = role === 'wire' ? WIRES : role === 'link' ? device.id : of;
    lists[index.get(writes) ?? -1]?.push(e);
  });
  return lists;
}

function ownerOf(act: Deed): TraceEvent['of'] {
  switch (act.do) {
    case 'breakWire':
    case 'mendWire':
      return { kind: 'wire', id: act.wire };
    case 'hook':
      return { kind: 'landing', id: act.a };
    case 'link':
      return { kind: 'device', id: act.link };
    case 'key':
      return { kind: 'device', id: 'keypad' };
    case 'switch':
      return { kind: 'device', id: SWITCHES };
    default:
      return { kind: 'device', id: act.device ?? 'supply' };
  }
}
