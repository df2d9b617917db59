import type { Factor } from './factor.js';
import type { Pattern } from './pattern.js';

/** Work space of one solver, reused from solve to solve; after a solve `amps` holds the current of every edge from a to b. */
export interface Workspace {
  readonly offset: Float64Array;
  readonly rest: Float64Array;
  readonly injected: Float64Array;
  readonly u: Float64Array;
  readonly amps: Float64Array;
}

/** Work space for networks of this pattern. */
export function workspace(pattern: Pattern): Workspace {
  const nodes = (): Float64Array => new Float64Array(pattern.nodeCount);
  const edges = (): Float64Array => new Float64Array(pattern.edgeA.length);
  return { offset: nodes(), rest: edges(), injected: nodes(), u: nodes(), amps: edges() };
}

/**
 * Solves a factorised network for its sources. Every edge carries i = g·(va − vb − emf) + j from a to b.
 *
 * Electromotive forces behind stiff edges (1 mΩ and less) are carried as voltage offsets along a spanning forest and
 * never become injections of millions of ampere, so an ideal source far from the reference costs no digits.
 *
 * @param factor from `factorise`
 * @param emf volts by which a stands above b at no current, by edge
 * @param j current source in parallel, A from a to b, by edge
 * @param work overwritten; its `amps` are the currents of this solution until the next
 * @returns voltage of every node against the root of its island, V
 * @example
 * // 10 V behind 1 Ω into 4 Ω
 * const p = analyse(2, [0, 0], [1, 1], 1);
 * solve(factorise(p, Float64Array.of(1, 0.25)), Float64Array.of(10, 0), new Float64Array(2), workspace(p))[0] // 8
 */
export function solve(
  factor: Factor,
  emf: Float64Array,
  j: Float64Array,
  work: Workspace,
): Float64Array {
  const { pattern, diagonal } = factor;
  const { nodeCount, order } = pattern;
  spreadOffsets(factor, emf, work.offset);
  inject(factor, emf, j, work);
  const { injected, u, offset } = work;
  const { rowStart, column } = pattern;
  const { slots } = factor;
  for (let i = 0; i < nodeCount; i++) {
    if (diagonal[i] === 0 || injected[i] === 0) continue;
    const share = injected[i] / diagonal[i];
    for (let s = rowStart[i]; s < rowStart[i + 1]; s++) injected[column[s]] += share * slots[s];
  }
  const volts = new Float64Array(nodeCount);
  for (let i = nodeCount - 1; i >= 0; i--) {
    let at = 0;
    if (diagonal[i] !== 0) {
      at = injected[i];
      for (let s = rowStart[i]; s < rowStart[i + 1]; s++) at += slots[s] * u[column[s]];
      at /= diagonal[i];
    }
    u[i] = at;
    volts[order[i]] = at + offset[order[i]];
  }
  currents(factor, j, work);
  return volts;
}

function spreadOffsets({ pattern, forest }: Factor, emf: Float64Array, offset: Float64Array): void {
  const { node, parent, edge } = forest;
  const { edgeA } = pattern;
  offset.fill(0);
  for (let k = 0; k < node.length; k++) {
    const e = edge[k];
    offset[node[k]] = offset[parent[k]] + (edgeA[e] === node[k] ? emf[e] : -emf[e]);
  }
}

function inject(
  { pattern, forest, g }: Factor,
  emf: Float64Array,
  j: Float64Array,
  { offset, rest, injected }: Workspace,
): void {
  const { edgeA, edgeB, position } = pattern;
  const { inForest } = forest;
  injected.fill(0);
  for (let e = 0; e < g.length; e++) {
    const a = edgeA[e];
    const b = edgeB[e];
    const left = inForest[e] === 1 ? 0 : emf[e] - (offset[a] - offset[b]);
    rest[e] = left;
    const into = g[e] * left - j[e];
    if (into === 0) continue;
    injected[position[a]] += into;
    injected[position[b]] -= into;
  }
}

function currents({ pattern, g }: Factor, j: Float64Array, { u, rest, amps }: Workspace): void {
  const { edgeA, edgeB, position } = pattern;
  for (let e = 0; e < g.length; e++)
    amps[e] = g[e] * (u[position[edgeA[e]]] - u[position[edgeB[e]]] - rest[e]) + j[e];
}
