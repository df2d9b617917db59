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
  /** Something written on the board is not as it was when it was last solved. */
  changed: boolean;
  /** What other sources gave in the network of `last`. */
  readonly answers: { readonly sources: Float64Array; readonly volts: Float64Array }[];
}

/** What other sources gave, section by section, in the solutions it was asked of. */
interface Response {
  readonly answers: (Float64Array | undefined)[];
  readonly asked: (Solution | undefined)[];
  volts: Float64Array;
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
  /** The board as it was last taken over, and where each edge lies. */
  private readonly seen: Stamp;
  private readonly sectionAt: Int32Array;
  private readonly placeAt: Int32Array;
  private readonly allEdges: readonly number[];
  private whole: Solution | undefined;
  private readonly responses: Response[] = [];

  /** @param options `cached: false` solves everything anew each time, for tests */
  constructor(plan: CircuitPlan, options: { cached?: boolean } = {}) {
    this.plan = plan;
    this.cached = options.cached ?? true;
    this.sections = shapeOf(plan).map((shape) => sectionOf(shape, options));
    this.seen = this.emptyStamp();
    this.allEdges = plan.edgeA.map((_, e) => e);
    this.sectionAt = new Int32Array(plan.edgeA.length);
    this.placeAt = new Int32Array(plan.edgeA.length).fill(-1);
    this.sections.forEach(({ edges, isModal }, k) =>
      edges.forEach((e, i) => {
        this.sectionAt[e] = k;
        if (!isModal[i]) this.placeAt[e] = i;
      }),
    );
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
   *
   * @returns the same object as before where nothing is otherwise
   */
  solve(stamp: Stamp, from?: readonly Mode[]): Solution {
    this.take(stamp);
    return this.solveTaken(from);
  }

  /** The same for what was taken over before. */
  solveTaken(from?: readonly Mode[]): Solution {
    const { sections, whole } = this;
    let made: Solution | undefined;
    for (const s of sections) {
      if (this.cached && s.last && !s.changed && startsAlike(s, s.last, from)) continue;
      s.changed = false;
      s.from = from ? modesOf(s, from) : undefined;
      s.answers.length = 0;
      s.last = s.part.solve(s.stamp, s.from);
      made ??= whole ? copyOf(whole) : this.emptySolution();
      place(s, s.last, made);
    }
    if (!made) return whole as Solution;
    const settled = sections.every((s) => s.last?.settled);
    return (this.whole = { ...made, settled });
  }

  private emptySolution(): Solution {
    const { nodeCount, modal } = this.plan;
    const island = Int32Array.from({ length: nodeCount }, (_, i) => i);
    return {
      volts: new Float64Array(nodeCount),
      island,
      modes: Array<Mode>(modal.length).fill(0),
      settled: true,
    };
  }

  /**
   * Takes over what is on the board: to each section what concerns it; modal edges keep what their mode wrote.
   *
   * @returns whether anything is otherwise than it was
   */
  private take(stamp: Stamp): boolean {
    const edges = this.takeEdges(stamp, this.allEdges);
    return this.takeModal(stamp) || edges;
  }

  /** The same for some edges, apart from the modal values. */
  takeEdges({ g, emf, j }: Stamp, edges: readonly number[]): boolean {
    let changed = false;
    const { seen: before, sections, sectionAt, placeAt } = this;
    for (let i = 0; i < edges.length; i++) {
      const e = edges[i];
      if (before.g[e] === g[e] && before.emf[e] === emf[e] && before.j[e] === j[e]) continue;
      before.g[e] = g[e];
      before.emf[e] = emf[e];
      before.j[e] = j[e];
      const place = placeAt[e];
      if (place < 0) continue;
      const s = sections[sectionAt[e]];
      s.stamp.g[place] = g[e];
      s.stamp.emf[place] = emf[e];
      s.stamp.j[place] = j[e];
      s.changed = changed = true;
    }
    return changed;
  }

  /** The same for the values of all modal edges. */
  takeModal(stamp: Stamp): boolean {
    let changed = false;
    for (const s of this.sections)
      for (let i = 0; i < s.modal.length; i++) {
        const [mine, given] = [s.stamp.modal[i], stamp.modal[s.modal[i]]];
        if (mine.volts === given.volts && mine.amps === given.amps && mine.g === given.g) continue;
        s.stamp.modal[i] = { ...given };
        s.changed = changed = true;
      }
    return changed;
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
   * Voltages that other sources (slopes, phasor parts) give in the network that was solved last.
   *
   * @param slot which kind of sources these are, 0 … 3: an answer that did not change is the same array
   * @param alike the sources are those of the last call for this slot: only parts solved since are asked again
   */
  respond(emf: Float64Array, slot = 3, alike = false): Float64Array {
    const last = this.responses[slot];
    const now: Response = (this.responses[slot] ??= { answers: [], asked: [], volts: emf });
    let changed = !last;
    this.sections.forEach((s, k) => {
      if (last && alike && this.cached && now.asked[k] === s.last) return;
      const answer = this.answer(s, emf);
      if (answer !== now.answers[k]) changed = true;
      now.answers[k] = answer;
      now.asked[k] = s.last;
    });
    if (!changed) return now.volts;
    const volts = new Float64Array(this.plan.nodeCount);
    this.sections.forEach(({ nodes }, k) => {
      const answer = now.answers[k];
      if (answer) for (let i = 0; i < nodes.length; i++) volts[nodes[i]] = answer[i];
    });
    return (now.volts = volts);
  }
}

const copyOf = ({ volts, island, modes, settled }: Solution): Solution => ({
  volts: volts.slice(),
  island: island.slice(),
  modes: modes.slice(),
  settled,
});

/** Writes what a section came to into the solution of the whole. */
function place(s: Section, own: Solution, whole: Solution): void {
  for (let i = 0; i < s.nodes.length; i++) {
    whole.volts[s.nodes[i]] = own.volts[i];
    whole.island[s.nodes[i]] = s.nodes[own.island[i]];
  }
  const modes = whole.modes as Mode[];
  for (let i = 0; i < s.modal.length; i++) modes[s.modal[i]] = own.modes[i];
}

const modesOf = ({ modal }: Section, from: readonly Mode[]): Mode[] => {
  const modes: Mode[] = [];
  for (let i = 0; i < modal.length; i++) modes.push(from[modal[i]]);
  return modes;
};

/** Whether a solution stands for these modes to begin with: they are those it began with, or those it rests on. */
function startsAlike(s: Section, last: Solution, from: readonly Mode[] | undefined): boolean {
  if (s.modal.length === 0) return true;
  if (!from) return s.from === undefined;
  let [rests, began] = [last.settled, s.from !== undefined];
  for (let i = 0; i < s.modal.length && (rests || began); i++) {
    const mode = from[s.modal[i]];
    rests &&= mode === last.modes[i];
    began &&= mode === s.from?.[i];
  }
  return rests || began;
}

/** Answers to other sources that a section keeps: real and imaginary part, and a slope. */
const KEPT_ANSWERS = 4;

function sectionOf(shape: SectionShape, options: { cached?: boolean }): Section {
  const zeros = (): Float64Array => new Float64Array(shape.edges.length);
  const values = shape.plan.modal.map((): ModalValue => ({ volts: 0, amps: 0, g: 1e6 }));
  return {
    ...shape,
    part: new CircuitPart(shape.plan, options, shape.pattern),
    stamp: { g: zeros(), emf: zeros(), j: zeros(), modal: values },
    from: undefined,
    last: undefined,
    changed: true,
    answers: [],
  };
}
