import { Circuit, type Board, type CircuitPlan, type Mode } from '../circuit/index.js';
import type { LandingVolts } from '../trace/index.js';
import { isZero } from './boards.js';

/** Voltages of one network, the modes they rest on, and whether these agree. */
export interface SolvedNetwork {
  readonly landing: LandingVolts;
  readonly modes: readonly Mode[];
  readonly settled: boolean;
}

/** The board that devices write on, solved again only where anything on it is otherwise than it was. */
export class Network {
  readonly board: Board;
  readonly noVolts: Float64Array;
  private readonly circuit: Circuit;
  private readonly last: { slope: Sources; re: Sources; im: Sources };
  /** Edges that were written since the board was last looked at. */
  private readonly written: (readonly number[])[] = [];
  private readonly allEdges: readonly number[];
  private readonly cached: boolean;
  /** What the sources of the last call gave still stands for the next one. */
  private kept = false;

  /** @param options `cached: false` looks at every edge and factorises anew each time, for tests */
  constructor(plan: CircuitPlan, options: { readonly cached?: boolean }) {
    this.circuit = new Circuit(plan, options);
    this.cached = options.cached ?? true;
    const zeros = (): Float64Array => new Float64Array(plan.edgeA.length);
    this.noVolts = new Float64Array(plan.nodeCount);
    this.board = {
      ...this.circuit.emptyStamp(),
      emfSlope: zeros(),
      acRe: zeros(),
      acIm: zeros(),
    };
    const none = (): Sources => ({ volts: zeros(), count: 0 });
    this.last = { slope: none(), re: none(), im: none() };
    this.allEdges = plan.edgeA.map((_, e) => e);
  }

  /** Takes everything off the board, for all devices to write on it anew. */
  wipe(): void {
    const { g, emf, j, emfSlope, acRe, acIm } = this.board;
    for (const list of [g, emf, j, emfSlope, acRe, acIm]) list.fill(0);
    this.written.length = 0;
    this.written.push(this.allEdges);
  }

  /** Notes that a device may have written on these edges: no others are looked at. */
  wrote(edges: readonly number[]): void {
    this.written.push(this.cached ? edges : this.allEdges);
  }

  /** Current of every edge from a to b in the last solution, A. */
  currents(): Float64Array {
    return this.circuit.currents();
  }

  /**
   * Solves what is on the board.
   *
   * @param before the last solution, where it was made from this board
   * @returns undefined where nothing on the board has changed since
   */
  solve(
    modes: readonly Mode[] | undefined,
    before: LandingVolts | undefined,
  ): SolvedNetwork | undefined {
    const { board, last, written } = this;
    let [slope, re, im, network] = [false, false, false, this.circuit.takeModal(board)];
    for (let i = 0; i < written.length; i++) {
      const edges = written[i];
      if (taken(board.emfSlope, last.slope, edges)) slope = true;
      if (taken(board.acRe, last.re, edges)) re = true;
      if (taken(board.acIm, last.im, edges)) im = true;
      if (this.circuit.takeEdges(board, edges)) network = true;
    }
    written.length = 0;
    if (before && !slope && !re && !im && !network) return undefined;
    const solution = this.circuit.solveTaken(modes);
    const { kept } = this;
    this.kept = true;
    const respond = (sources: Sources, slot: number, changed: boolean): Float64Array =>
      sources.count === 0
        ? this.noVolts
        : this.circuit.respond(sources.volts, slot, kept && !changed);
    const landing: LandingVolts = {
      volts: solution.volts,
      slope: respond(last.slope, 0, slope),
      acRe: respond(last.re, 1, re),
      acIm: respond(last.im, 2, im),
      island: solution.island,
    };
    return { landing, modes: solution.modes, settled: solution.settled };
  }

  /**
   * Voltages of the board as it is with alternating sources of another run, without slopes. What was solved before is left
   * as it was; the board is to be written anew before it is solved again.
   */
  solveApart(
    modes: readonly Mode[] | undefined,
    acRe: Float64Array,
    acIm: Float64Array,
  ): LandingVolts {
    const solution = this.circuit.solve(this.board, modes);
    this.kept = false;
    const respond = (sources: Float64Array, slot: number): Float64Array =>
      isZero(sources) ? this.noVolts : this.circuit.respond(sources, slot);
    return {
      volts: solution.volts,
      slope: this.noVolts,
      acRe: respond(acRe, 1),
      acIm: respond(acIm, 2),
      island: solution.island,
    };
  }
}

/** Sources of one sort by edge, and how many of them give anything. */
interface Sources {
  readonly volts: Float64Array;
  count: number;
}

/** Copies what is new on some edges. @returns whether anything was */
function taken(from: Float64Array, to: Sources, edges: readonly number[]): boolean {
  const { volts } = to;
  let changed = false;
  for (let i = 0; i < edges.length; i++) {
    const e = edges[i];
    if (from[e] === volts[e]) continue;
    to.count += (from[e] === 0 ? 0 : 1) - (volts[e] === 0 ? 0 : 1);
    volts[e] = from[e];
    changed = true;
  }
  return changed;
}
