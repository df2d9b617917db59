import type { Installation } from './installation.js';
import { MOST_MA, type Withstood } from './withstand.js';

/** What can reach a landing of its sources: those of the device up to their own voltage, all others without limit. */
interface Reach {
  readonly own: number;
  readonly foreign: boolean;
}

const NOTHING: Reach = { own: 0, foreign: false };

const both = (x: Reach, y: Reach): Reach => ({
  own: Math.max(x.own, y.own),
  foreign: x.foreign || y.foreign,
});

/**
 * Terminals of the device that something could harm, however contacts, coils and dials stand: the others need not be looked
 * at in any trial. A source drives no current through a landing that is the only way to it, so that between two landings
 * only the sources count that lie in the loops between them (the blocks of the graph of all edges, Tarjan 1972). The links
 * of the device are taken as they stand.
 *
 * @example harmable(install(drum, profile)).length // 0 where the wiring is sound
 */
export function harmable(installation: Installation): Withstood[] {
  const { device, landings } = installation;
  if (device.withstand.length === 0) return [];
  const loops = loopsOf(installation);
  const near = reachFrom(device.reference, landings.length, loops);
  const earthed =
    device.earth === undefined ? undefined : reachFrom(device.earth, landings.length, loops);
  return device.withstand.filter((w) => {
    const at = near[w.landing] ?? NOTHING;
    if (at.foreign || earthed?.[w.landing]?.foreign) return true;
    return !w.output && at.own > mostOf(installation, w);
  });
}

/** Highest direct voltage that a terminal bears as the links stand, V: an input for milliamperes bears its current. */
function mostOf({ device }: Installation, { terminal, mostDc }: Withstood): number {
  const input = device.analogue.find((a) => a.terminal === terminal);
  const asCurrent = device.links.some((l) => {
    const at = l.positions[l.position]?.analogue;
    return at?.terminal === terminal && at.current;
  });
  return input && asCurrent ? Math.min(mostDc, (MOST_MA / 1000) * input.currentOhm) : mostDc;
}

/** Neighbours of every landing, and what each edge gives. */
interface Loops {
  readonly at: readonly (readonly { readonly edge: number; readonly to: number }[])[];
  readonly gives: readonly Reach[];
}

function loopsOf({ device, landings, edges, edgeA, edgeB, modal }: Installation): Loops {
  const at: { edge: number; to: number }[][] = landings.map(() => []);
  const gives: Reach[] = edges.map(({ of, role }) => ({
    own: 0,
    foreign: of !== device.id && (role === 'source' || role === 'hand'),
  }));
  for (const { edge } of modal)
    if (edges[edge].of !== device.id) gives[edge] = { own: 0, foreign: true };
  for (const own of [device.supply24, device.reference10])
    if (own) gives[own.edge] = { own: own.volts, foreign: false };
  edges.forEach((_, edge) => {
    at[edgeA[edge]].push({ edge, to: edgeB[edge] });
    at[edgeB[edge]].push({ edge, to: edgeA[edge] });
  });
  return { at, gives };
}

/** What lies in the loops between a landing and every other; nothing for those that no edge can ever join with it. */
function reachFrom(root: number, count: number, { at, gives }: Loops): readonly Reach[] {
  const reach = Array<Reach>(count);
  const [depth, low] = [new Int32Array(count).fill(-1), new Int32Array(count)];
  /** Landings and edges met since the loop they belong to was entered. */
  const [landings, edges]: number[][] = [[], []];
  /** Loops from the innermost out: their landings, the landing that leads to them, and what they hold. */
  const loops: { members: number[]; head: number; holds: Reach }[] = [];
  const visit = (v: number, by: number): void => {
    landings.push(v);
    low[v] = depth[v];
    for (const { edge, to } of at[v]) {
      if (edge === by || depth[to] > depth[v]) continue;
      edges.push(edge);
      if (depth[to] >= 0) {
        low[v] = Math.min(low[v], depth[to]);
        continue;
      }
      depth[to] = depth[v] + 1;
      visit(to, edge);
      low[v] = Math.min(low[v], low[to]);
      if (low[to] < depth[v]) continue;
      const members = landings.splice(landings.indexOf(to));
      const holds = edges.splice(edges.lastIndexOf(edge)).map((e) => gives[e]);
      loops.push({ members, head: v, holds: holds.reduce(both, NOTHING) });
    }
  };
  depth[root] = 0;
  visit(root, -1);
  reach[root] = NOTHING;
  for (const { members, head, holds } of loops.reverse())
    for (const v of members) reach[v] = both(holds, reach[head]);
  return reach;
}
