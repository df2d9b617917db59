import {
  analyse,
  factorise,
  solve,
  workspace,
  type Factor,
  type Pattern,
  type Workspace,
} from '../numeric/index.js';
import {
  applyMode,
  firstMode,
  judgeMode,
  type ModalEdge,
  type ModalValue,
  type Mode,
} from './modes.js';

/** Topology of a circuit: landings are nodes, never merged, so every wire stays measurable. */
export interface CircuitPlan {
  readonly nodeCount: number;
  readonly edgeA: readonly number[];
  readonly edgeB: readonly number[];
  readonly modal: readonly ModalEdge[];
  /** Node held at 0; −1 in a part in which it does not lie. */
  readonly reference: number;
}

/** What every edge is at one moment. Modal edges take theirs from `modal`, in the order of the plan. */
export interface Stamp {
  readonly g: Float64Array;
  readonly emf: Float64Array;
  readonly j: Float64Array;
  readonly modal: ModalValue[];
}

/** Voltages of all landings at one moment, with the island each of them lies in. */
export interface Solution {
  readonly volts: Float64Array;
  /** Root of the island of every landing; a voltage between two landings exists only where these are equal. */
  readonly island: Int32Array;
  readonly modes: readonly Mode[];
  /** False when no set of modes agreed with its own result. */
  readonly settled: boolean;
}

const CACHED_FACTORS = 64;

/** Elimination pattern of a part of a circuit. */
export const patternOf = ({ nodeCount, edgeA, edgeB, reference }: CircuitPlan): Pattern =>
  analyse(nodeCount, edgeA, edgeB, Math.max(0, reference));

/** One part of a circuit: landings that some edge may join, open or closed. Results never depend on the cache. */
export class CircuitPart {
  private readonly plan: CircuitPlan;
  private readonly pattern: Pattern;
  private readonly work: Workspace;
  private readonly cache = new Map<number, Factor>();
  private readonly cached: boolean;
  private readonly words = new Float64Array(1);
  private readonly bits = new Uint32Array(this.words.buffer);

  /** @param options `cached: false` factorises anew each time, for tests */
  constructor(
    plan: CircuitPlan,
    options: { cached?: boolean } = {},
    pattern: Pattern = patternOf(plan),
  ) {
    this.plan = plan;
    this.pattern = pattern;
    this.work = workspace(pattern);
    this.cached = options.cached ?? true;
  }

  /**
   * Solves with the modes that agree with their own result: starting from `from`, the lowest contradicting element is
   * flipped and the network solved again, at most four times the number of modal elements.
   */
  solve(stamp: Stamp, from?: readonly Mode[]): Solution {
    const { modal } = this.plan;
    if (modal.length === 0 && isZero(stamp.emf) && isZero(stamp.j)) {
      this.work.amps.fill(0);
      return {
        volts: new Float64Array(this.plan.nodeCount),
        island: this.factor(stamp.g).island,
        modes: [],
        settled: true,
      };
    }
    const modes = from ? [...from] : modal.map((m) => firstMode(m.kind));
    for (let round = 0; ; round++) {
      modal.forEach((m, i) => applyMode(m, modes[i], stamp.modal[i], stamp.g, stamp.emf, stamp.j));
      const factor = this.factor(stamp.g);
      const volts = solve(factor, stamp.emf, stamp.j, this.work);
      const wrong = this.contradicting(stamp, modes, factor.island, volts);
      if (!wrong || round >= 4 * modal.length)
        return { volts, island: factor.island, modes, settled: !wrong };
      modes[wrong.index] = wrong.mode;
    }
  }

  /** Current of every edge from a to b in the last solution, A. */
  get amps(): Float64Array {
    return this.work.amps;
  }

  /** Voltages that other sources (slopes, phasor parts) give in a network that was just solved with `stamp`. */
  respond(stamp: Stamp, emf: Float64Array, j: Float64Array): Float64Array {
    return solve(this.factor(stamp.g), emf, j, this.work);
  }

  private contradicting(
    stamp: Stamp,
    modes: readonly Mode[],
    island: Int32Array,
    volts: Float64Array,
  ): { index: number; mode: Mode } | undefined {
    const { modal, edgeA, edgeB, reference } = this.plan;
    for (let index = 0; index < modal.length; index++) {
      const { edge, kind } = modal[index];
      const a = edgeA[edge];
      const b = edgeB[edge];
      const across = island[a] === island[b] ? volts[a] - volts[b] : null;
      const mode = judgeMode(
        kind,
        modes[index],
        stamp.modal[index],
        across,
        this.work.amps[edge],
        reference >= 0 && island[a] === island[reference],
      );
      if (mode !== modes[index]) return { index, mode };
    }
    return undefined;
  }

  private factor(g: Float64Array): Factor {
    if (!this.cached) return factorise(this.pattern, g);
    const key = this.fingerprint(g);
    const hit = this.cache.get(key);
    if (hit && same(hit.g, g)) return hit;
    const made = factorise(this.pattern, g);
    if (this.cache.size >= CACHED_FACTORS)
      this.cache.delete(this.cache.keys().next().value as number);
    this.cache.set(key, made);
    return made;
  }

  private fingerprint(g: Float64Array): number {
    let hash = 0x811c9dc5;
    for (let e = 0; e < g.length; e++) {
      this.words[0] = g[e];
      hash = Math.imul(hash ^ this.bits[0], 0x01000193);
      hash = Math.imul(hash ^ this.bits[1], 0x01000193);
    }
    return hash;
  }
}

function isZero(x: Float64Array): boolean {
  for (let i = 0; i < x.length; i++) if (x[i] !== 0) return false;
  return true;
}

function same(x: Float64Array, y: Float64Array): boolean {
  for (let i = 0; i < x.length; i++) if (x[i] !== y[i]) return false;
  return true;
}
