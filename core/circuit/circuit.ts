import type { ModalValue, Mode } from './modes.js';
import { CircuitPart, type CircuitPlan, type Solution, type Stamp } from './part.js';
import { shapeOf, type SectionShape } from './shape.js';

export type { CircuitPlan, Solution, Stamp } from './part.js';

/** A part of the circuit as it is being solved. */
interface Section extends SectionShape {
  readonly part: CircuitPart;
  readonly stamp: Stamp;
  from: readonly Mode[] | undefined;
  last: Solution | undefined;
  /** What other sources gave in the network of `last`. */
  readonly answers: { readonly sources: Float64Array; readonly volts: Float64Array }[];
}

/**
 * Solves one topology again and again as contacts, modes and sources change. Landings that no edge can ever join are
 * solved apart, so that a button in the control circuit costs nothing in the mains; a part in which nothing changed keeps
 * its solution. Results never depend on what was kept.
 */
export class Circuit {
  readonly plan: CircuitPlan;
  private readonly sections: readonly Section[];
  private readonly cached: boolean;
  private readonly alone: Int32Array;
  private whole: Solution | undefined;
  private readonly responses: {
    answers: readonly (Float64Array | undefined)[];
    volts: Float64Array;
  }[] = [];

  /** @param options `cached: false` solves everything anew each time, for tests */
  constructor(plan: CircuitPlan, options: { cached?: boolean } = {}) {
    this.plan = plan;
    this.cached = options.cached ?? true;
    this.sections = shapeOf(plan).map((shape) => sectionOf(shape, options));
    this.alone = Int32Array.from(Array(plan.nodeCount).keys());
  }

  /** A stamp with every edge open and no source, to be filled in. */
  emptyStamp(): Stamp {
    const n = this.plan.edgeA.length;
    return {
      g: new Float64Array(n),
      emf: new Float64Array(n),
      j: new Float64Array(n),
      modal: this.plan.modal.map(() => ({ volts: 0, amps: 0, g: 1e6 })),
    };
  }

  /**
   * Solves with the modes that agree with their own result: starting from `from`, the lowest contradicting element is
   * flipped and the network solved again, at most four times the number of modal elements of its part.
   */
  solve(stamp: Stamp, from?: readonly Mode[]): Solution {
    let same = this.whole !== undefined;
    for (const s of this.sections) {
      const before = s.last;
      if (this.solveSection(s, stamp, from) !== before) same = false;
    }
    return same ? (this.whole as Solution) : (this.whole = this.gather());
  }

  private gather(): Solution {
    const volts = new Float64Array(this.plan.nodeCount);
    const island = this.alone.slice();
    const modes: Mode[] = Array<Mode>(this.plan.modal.length).fill(0);
    let settled = true;
    for (const s of this.sections) {
      const solution = s.last as Solution;
      for (let i = 0; i < s.nodes.length; i++) {
        volts[s.nodes[i]] = solution.volts[i];
        island[s.nodes[i]] = s.nodes[solution.island[i]];
      }
      for (let i = 0; i < s.modal.length; i++) modes[s.modal[i]] = solution.modes[i];
      settled &&= solution.settled;
    }
    return { volts, island, modes, settled };
  }

  private solveSection(s: Section, stamp: Stamp, from: readonly Mode[] | undefined): Solution {
    const start = from ? modesOf(s, from) : undefined;
    const changed = fill(s, stamp);
    const sameStart =
      start === undefined
        ? s.from === undefined
        : s.from !== undefined && start.every((mode, i) => mode === s.from?.[i]);
    if (this.cached && s.last && !changed && (sameStart || s.modal.length === 0)) return s.last;
    s.from = start;
    s.answers.length = 0;
    return (s.last = s.part.solve(s.stamp, start));
  }

  /** Current of every edge from a to b in the last solution, A. */
  currents(): Float64Array {
    const amps = new Float64Array(this.plan.edgeA.length);
    for (const { edges, part } of this.sections) edges.forEach((e, i) => (amps[e] = part.amps[i]));
    return amps;
  }

  private answer(
    { edges, part, stamp, answers }: Section,
    emf: Float64Array,
  ): Float64Array | undefined {
    let any = false;
    for (let i = 0; i < edges.length && !any; i++) any = emf[edges[i]] !== 0;
    if (!any) return undefined;
    for (const known of answers) {
      let same = true;
      for (let i = 0; i < edges.length && same; i++) same = known.sources[i] === emf[edges[i]];
      if (same && this.cached) return known.volts;
    }
    const sources = new Float64Array(edges.length);
    for (let i = 0; i < edges.length; i++) sources[i] = emf[edges[i]];
    const volts = part.respond(stamp, sources, new Float64Array(edges.length));
    if (answers.length >= KEPT_ANSWERS) answers.shift();
    answers.push({ sources, volts });
    return volts;
  }

  /**
   * Voltages that other sources (slopes, phasor parts) give in a network that was just solved with `stamp`.
   *
   * @param slot which kind of sources these are, 0 … 3: an answer that did not change is the same array
   */
  respond(emf: Float64Array, slot = 3): Float64Array {
    const answers = this.sections.map((s) => this.answer(s, emf));
    const last = this.responses[slot];
    if (last && answers.every((answer, i) => answer === last.answers[i])) return last.volts;
    const volts = new Float64Array(this.plan.nodeCount);
    this.sections.forEach(({ nodes }, k) => {
      const answer = answers[k];
      if (answer) for (let i = 0; i < nodes.length; i++) volts[nodes[i]] = answer[i];
    });
    this.responses[slot] = { answers, volts };
    return volts;
  }
}

const modesOf = ({ modal }: Section, from: readonly Mode[]): Mode[] => {
  const modes: Mode[] = [];
  for (let i = 0; i < modal.length; i++) modes.push(from[modal[i]]);
  return modes;
};

/** Answers to other sources that a section keeps: real and imaginary part, and a slope. */
const KEPT_ANSWERS = 4;

/** Copies what concerns a section; modal edges keep what their mode wrote. @returns whether anything is not as it was */
function fill(s: Section, stamp: Stamp): boolean {
  let changed = false;
  for (let i = 0; i < s.edges.length; i++) {
    if (s.isModal[i]) continue;
    const e = s.edges[i];
    if (
      s.stamp.g[i] !== stamp.g[e] ||
      s.stamp.emf[i] !== stamp.emf[e] ||
      s.stamp.j[i] !== stamp.j[e]
    )
      changed = true;
    s.stamp.g[i] = stamp.g[e];
    s.stamp.emf[i] = stamp.emf[e];
    s.stamp.j[i] = stamp.j[e];
  }
  s.modal.forEach((m, i) => {
    const [mine, given] = [s.stamp.modal[i], stamp.modal[m]];
    if (mine.volts === given.volts && mine.amps === given.amps && mine.g === given.g) return;
    changed = true;
    s.stamp.modal[i] = { ...given };
  });
  return changed;
}

function sectionOf(shape: SectionShape, options: { cached?: boolean }): Section {
  const zeros = (): Float64Array => new Float64Array(shape.edges.length);
  const values = shape.plan.modal.map((): ModalValue => ({ volts: 0, amps: 0, g: 1e6 }));
  return {
    ...shape,
    part: new CircuitPart(shape.plan, options, shape.pattern),
    stamp: { g: zeros(), emf: zeros(), j: zeros(), modal: values },
    from: undefined,
    last: undefined,
    answers: [],
  };
}
