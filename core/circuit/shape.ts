import type { Pattern } from '../numeric/index.js';
import { patternOf, type CircuitPlan } from './part.js';

/** A part of a circuit with the places of its nodes, edges and modal edges in the whole, and how it is eliminated. */
export interface SectionShape {
  readonly nodes: Int32Array;
  readonly edges: Int32Array;
  readonly modal: Int32Array;
  /** 1 at edges whose conductance a mode decides. */
  readonly isModal: Uint8Array;
  readonly plan: CircuitPlan;
  readonly pattern: Pattern;
}

const MOST_KEPT = 12;
/** Shapes by what makes them, the one used last at the end: a job is compiled again and again with one topology. */
const kept = new Map<string, readonly SectionShape[]>();

/** Parts of a circuit that no edge can ever join; worked out once for each topology. */
export function shapeOf(plan: CircuitPlan): readonly SectionShape[] {
  const modal = plan.modal.map(({ edge, kind }) => `${edge} ${kind}`);
  const key = [plan.nodeCount, plan.reference, plan.edgeA, plan.edgeB, modal].join('|');
  const known = kept.get(key);
  kept.delete(key);
  const shape = known ?? sectionsOf(plan);
  kept.set(key, shape);
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string);
  return shape;
}

function sectionsOf(plan: CircuitPlan): SectionShape[] {
  const { nodeCount, edgeA, edgeB } = plan;
  const root = Int32Array.from({ length: nodeCount }, (_, i) => i);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]];
    return i;
  };
  edgeA.forEach((a, e) => (root[find(a)] = find(edgeB[e])));
  const edgesBy = new Map<number, number[]>();
  edgeA.forEach((a, e) => {
    const at = find(a);
    const list = edgesBy.get(at);
    if (list) list.push(e);
    else edgesBy.set(at, [e]);
  });
  const nodesBy = new Map<number, number[]>();
  for (let i = 0; i < nodeCount; i++) {
    const at = find(i);
    const list = nodesBy.get(at);
    if (list) list.push(i);
    else nodesBy.set(at, [i]);
  }
  const local = new Int32Array(nodeCount);
  for (const nodes of nodesBy.values()) nodes.forEach((node, i) => (local[node] = i));
  const modalOn = new Set(plan.modal.map((m) => m.edge));
  return [...edgesBy].map(([at, edges]) => {
    const nodes = nodesBy.get(at) as number[];
    const placeOf = new Map(edges.map((e, i) => [e, i]));
    const modal = plan.modal.flatMap((m, i) => (placeOf.has(m.edge) ? [i] : []));
    const own: CircuitPlan = {
      nodeCount: nodes.length,
      edgeA: edges.map((e) => local[edgeA[e]]),
      edgeB: edges.map((e) => local[edgeB[e]]),
      modal: modal.map((m) => ({
        ...plan.modal[m],
        edge: placeOf.get(plan.modal[m].edge) as number,
      })),
      reference: find(plan.reference) === at ? local[plan.reference] : -1,
    };
    return {
      nodes: Int32Array.from(nodes),
      edges: Int32Array.from(edges),
      modal: Int32Array.from(modal),
      isModal: Uint8Array.from(edges, (e) => (modalOn.has(e) ? 1 : 0)),
      plan: own,
      pattern: patternOf(own),
    };
  });
}
