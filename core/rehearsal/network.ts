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
  private readonly last: { slope: Float64Array; re: Float64Array; im: Float64Array };
  /** What the sources of the last call gave still stands for the next one. */
  private kept = false;

  /** @param options `cached: false` factorises anew each time, for tests */
  constructor(plan: CircuitPlan, options: { readonly cached?: boolean }) {
    this.circuit = new Circuit(plan, options);
    const zeros = (): Float64Array => new Float64Array(plan.edgeA.length);
    this.noVolts = new Float64Array(plan.nodeCount);
    this.board = {
      ...this.circuit.emptyStamp(),
      emfSlope: zeros(),
      acRe: zeros(),
      acIm: zeros(),
    };
    this.last = { slope: zeros(), re: zeros(), im: zeros() };
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
    const { board, last } = this;
    // Each is looked through to its end: what is on the board now is what the next call compares with.
    const slope = taken(board.emfSlope, last.slope);
    const [re, im] = [taken(board.acRe, last.re), taken(board.acIm, last.im)];
    const network = this.circuit.take(board);
    if (before && !slope && !re && !im && !network) return undefined;
    const solution = this.circuit.solveTaken(modes);
    const { kept } = this;
    this.kept = true;
    const respond = (sources: Float64Array, slot: number, changed: boolean): Float64Array =>
      isZero(sources) ? this.noVolts : this.circuit.respond(sources, slot, kept && !changed);
    const landing: LandingVolts = {
      volts: solution.volts,
      slope: respond(board.emfSlope, 0, slope),
      acRe: respond(board.acRe, 1, re),
      acIm: respond(board.acIm, 2, im),
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

/** Copies what is new. @returns whether anything was */
function taken(from: Float64Array, to: Float64Array): boolean {
  let changed = false;
  for (let i = 0; i < from.length; i++) {
    if (from[i] === to[i]) continue;
    to[i] = from[i];
    changed = true;
  }
  return changed;
}
