import type { Pattern } from './pattern.js';

/** Conductance at and above which an edge counts as stiff: source offsets are carried across it, not injected. */
const STIFF = 1e3;

/** A factorised network. Valid for one set of conductances. */
export interface Factor {
  readonly pattern: Pattern;
  readonly g: Float64Array;
  /** Eliminated off-diagonal conductances, by slot. */
  readonly slots: Float64Array;
  /** Sum of the later conductances of each position; exactly 0 marks the root of an island. */
  readonly diagonal: Float64Array;
  /** Node → the node that is the root of its island. */
  readonly island: Int32Array;
  /** Spanning forest over stiff edges: node, its parent and the edge between them, parents first. */
  readonly forest: { node: Int32Array; parent: Int32Array; edge: Int32Array; inForest: Uint8Array };
}

/**
 * Subtraction-free elimination of a real conductance network: no diagonal is ever formed by a difference, so milliohms
 * beside megohms lose no digits and "floating" is decided by an exact zero, without a tolerance.
 *
 * Source: the Grassmann–Taksar–Heyman form of Gaussian elimination for M-matrices (Operations Research 33, 1985).
 *
 * @param pattern made by `analyse` for the same edges
 * @param g conductance of every edge in siemens, each ≥ 0; exactly 0 is an open path
 * @example factorise(analyse(2, [0], [1], 1), Float64Array.of(0.5)).island // Int32Array [1, 1]
 */
export function factorise(pattern: Pattern, g: Float64Array): Factor {
  const { nodeCount, rowStart, column, edgeSlot, updateTarget, order } = pattern;
  const slots = new Float64Array(column.length);
  for (let e = 0; e < g.length; e++) if (edgeSlot[e] >= 0) slots[edgeSlot[e]] += g[e];
  const diagonal = new Float64Array(nodeCount);
  let update = 0;
  for (let i = 0; i < nodeCount; i++) {
    const from = rowStart[i];
    const to = rowStart[i + 1];
    let d = 0;
    for (let s = from; s < to; s++) d += slots[s];
    diagonal[i] = d;
    for (let p = from; p < to; p++) {
      if (d === 0 || slots[p] === 0) {
        update += to - p - 1;
        continue;
      }
      const share = slots[p] / d;
      for (let q = p + 1; q < to; q++) slots[updateTarget[update++]] += share * slots[q];
    }
  }
  const rootAt = new Int32Array(nodeCount);
  const island = new Int32Array(nodeCount);
  for (let i = nodeCount - 1; i >= 0; i--) {
    rootAt[i] = i;
    if (diagonal[i] !== 0) {
      for (let s = rowStart[i]; s < rowStart[i + 1]; s++) {
        if (slots[s] !== 0) {
          rootAt[i] = rootAt[column[s]];
          break;
        }
      }
    }
    island[order[i]] = order[rootAt[i]];
  }
  return { pattern, g: g.slice(), slots, diagonal, island, forest: stiffForest(pattern, g) };
}

/** Breadth-first over the stiff edges alone; parents come before their children. */
function stiffForest(pattern: Pattern, g: Float64Array): Factor['forest'] {
  const { nodeCount, edgeA, edgeB, reference } = pattern;
  const inForest = new Uint8Array(g.length);
  const stiff: number[] = [];
  for (let e = 0; e < g.length; e++) if (g[e] >= STIFF && edgeA[e] !== edgeB[e]) stiff.push(e);
  const seen = new Uint8Array(nodeCount);
  const node: number[] = [];
  const parent: number[] = [];
  const edge: number[] = [];
  const grow = (): void => {
    for (let grew = true; grew;) {
      grew = false;
      for (const e of stiff) {
        const [a, b] = [edgeA[e], edgeB[e]];
        if (seen[a] === seen[b]) continue;
        const child = seen[a] ? b : a;
        seen[child] = 1;
        inForest[e] = 1;
        node.push(child);
        parent.push(child === b ? a : b);
        edge.push(e);
        grew = true;
      }
    }
  };
  seen[reference] = 1;
  grow();
  for (const e of stiff) {
    if (seen[edgeA[e]]) continue;
    seen[edgeA[e]] = 1;
    grow();
  }
  return {
    node: Int32Array.from(node),
    parent: Int32Array.from(parent),
    edge: Int32Array.from(edge),
    inForest,
  };
}
