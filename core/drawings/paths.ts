import type { Graph, GraphEdge, GraphNode, LaidGraph, Layouter, Point } from './graph.js';
import { isRail, type Net, type NetEnd } from './joints.js';

/** Elements that hang together without the rails, laid out by themselves. */
export interface Path {
  /** Places of its elements, from its corner. */
  readonly nodes: LaidGraph['nodes'];
  readonly lines: readonly {
    readonly net: string;
    readonly port: string;
    readonly points: readonly Point[];
  }[];
  readonly dots: readonly { readonly net: string; readonly x: number; readonly y: number }[];
  /** Ends that hang on a rail: where their line leaves for it, the way from there to the end itself. */
  readonly rails: readonly {
    readonly net: string;
    readonly port: string;
    readonly above: boolean;
    readonly points: readonly Point[];
  }[];
  readonly width: number;
  readonly height: number;
}

/** What hangs between rails commands; what hangs on none is the power. */
export const isControl = ({ rails }: Path): boolean => rails.length > 0;

/** Prefix of the nodes that are dots, and of those that stand for a rail. */
const DOT = 'dot ';
const RAIL = 'rail ';

const spacing = { node: 14, layer: 18, edge: 10 } as const;

/**
 * Lays out current paths one by one: what hangs together by anything else than a rail is one path.
 *
 * @param nodes elements as boxes with their ends
 */
export async function pathsOf(
  nodes: readonly GraphNode[],
  nets: readonly Net[],
  layouter: Layouter,
): Promise<Path[]> {
  const paths: Path[] = [];
  for (const ids of together(nodes, nets)) {
    const own = nodes.filter((n) => ids.has(n.id));
    const here = nets.flatMap((net): Net[] => {
      const ends = net.ends.filter((e) => ids.has(e.element));
      return ends.length > 0 ? [{ ...net, ends }] : [];
    });
    paths.push(chain(own, here) ?? path(await layouter(graphOf(own, here)), here));
  }
  return paths;
}

/**
 * A path whose elements follow one after the other needs no layout: they stand below each other on one upright line.
 *
 * @returns undefined where it branches
 */
function chain(nodes: readonly GraphNode[], nets: readonly Net[]): Path | undefined {
  const straight = nodes.every(({ ports: [a, b, more] }) => {
    if (!a || !b || more) return false;
    return a.side === 'start' && b.side === 'end' && a.at === b.at;
  });
  const single = nets.every((net) => net.ends.length === (isRail(net) || !joins(net) ? 1 : 2));
  if (!straight || !single) return undefined;
  const netOf = new Map(nets.flatMap((n) => n.ends.map((e) => [e.port, n] as const)));
  const above = ({ ports }: GraphNode): Net | undefined => netOf.get(ports[0].id);
  const below = ({ ports }: GraphNode): Net | undefined => netOf.get(ports[1].id);
  const ordered: GraphNode[] = [];
  let next = nodes.find((n) => !joins(above(n)));
  while (next && !ordered.includes(next)) {
    const last = next;
    ordered.push(last);
    next = joins(below(last))
      ? nodes.find((n) => n !== last && above(n) === below(last))
      : undefined;
  }
  if (ordered.length !== nodes.length) return undefined;
  return stacked(ordered, above, below);
}

/** Whether a net leads from one element of a path to the next. */
const joins = (net: Net | undefined): boolean =>
  net !== undefined && !isRail(net) && net.ends.length === 2;

type NetAt = (node: GraphNode) => Net | undefined;

function stacked(ordered: readonly GraphNode[], above: NetAt, below: NetAt): Path {
  const at = ({ ports }: GraphNode): number => ports[0].at as number;
  const column = Math.max(...ordered.map(at));
  const gap = spacing.layer;
  const [nodes, lines, rails]: [
    Path['nodes'][number][],
    Path['lines'][number][],
    Path['rails'][number][],
  ] = [[], [], []];
  let y = 0;
  const straight = (from: number, to: number): Point[] => [
    [column, from],
    [column, to],
  ];
  ordered.forEach((node, i) => {
    const [up, down] = [above(node), below(node)];
    const [first, last] = node.ports;
    if (up && (isRail(up) || i > 0)) {
      const points = straight(y, y + gap);
      if (isRail(up)) rails.push({ net: up.name, port: first.id, above: true, points });
      else lines.push({ net: up.name, port: first.id, points });
      y += gap;
    }
    const { id, width, height } = node;
    nodes.push({ id, x: column - at(node), y, width, height, ports: [] });
    y += height;
    if (down && isRail(down)) {
      rails.push({ net: down.name, port: last.id, above: false, points: straight(y + gap, y) });
      y += gap;
    }
  });
  const width = Math.max(...nodes.map((n) => n.x + n.width));
  return { nodes, lines, rails, dots: [], width, height: y };
}

/** Which of some things hang together, by a name for all that do. */
class Groups {
  private readonly up = new Map<string, string>();

  of(id: string): string {
    let at = id;
    for (let next = this.up.get(at); next !== undefined; next = this.up.get(at)) at = next;
    return at;
  }

  join(a: string, b: string): void {
    const [x, y] = [this.of(a), this.of(b)];
    if (x !== y) this.up.set(x, y);
  }
}

/** Ids of the elements of each path. */
function together(nodes: readonly GraphNode[], nets: readonly Net[]): ReadonlySet<string>[] {
  const groups = new Groups();
  for (const net of nets)
    if (!isRail(net)) for (const { element } of net.ends) groups.join(element, net.ends[0].element);
  const by = new Map<string, Set<string>>();
  for (const { id } of nodes) by.set(groups.of(id), (by.get(groups.of(id)) ?? new Set()).add(id));
  return [...by.values()];
}

/** Name of the circuit that a path belongs to: paths that share a rail are one circuit. */
export function circuitsOf(paths: readonly Path[]): (path: Path) => string {
  const groups = new Groups();
  const first = (path: Path): string => path.rails[0]?.net ?? path.nodes[0].id;
  for (const path of paths) for (const { net } of path.rails) groups.join(net, first(path));
  return (path) => groups.of(first(path));
}

function graphOf(elements: readonly GraphNode[], nets: readonly Net[]): Graph {
  const nodes = [...elements];
  const edges: GraphEdge[] = [];
  for (const net of nets) {
    if (isRail(net)) hang(net, nodes, edges);
    else if (net.joint === 'dot') meet(net, nodes, edges);
    else if (net.ends.length === 2) {
      const [from, to] = net.ends[0].side === 'end' ? net.ends : [net.ends[1], net.ends[0]];
      edges.push({ id: lineOf(net, to), from: from.port, to: to.port });
    }
  }
  return { nodes, edges, way: 'down', aspect: 1, spacing };
}

const lineOf = ({ name }: Net, { port }: NetEnd): string => `${name}~${port}`;

/** Ends that meet at a dot: those above it and those below it. */
function meet(net: Net, nodes: GraphNode[], edges: GraphEdge[]): void {
  const { name, ends } = net;
  const [above, below] = [`${name}^`, `${name}v`];
  nodes.push({
    id: DOT + name,
    width: 2,
    height: 2,
    free: 'nothing',
    ports: [
      { id: above, side: 'start', at: 1 },
      { id: below, side: 'end', at: 1 },
    ],
  });
  for (const end of ends)
    edges.push(
      end.side === 'end'
        ? { id: lineOf(net, end), from: end.port, to: above }
        : { id: lineOf(net, end), from: below, to: end.port },
    );
}

/** Ends that hang on a rail. */
function hang(net: Net, nodes: GraphNode[], edges: GraphEdge[]): void {
  const { name, ends, joint } = net;
  const above = joint === 'above';
  const at = ({ port }: NetEnd): string => `${name}@${port}`;
  nodes.push({
    id: RAIL + name,
    width: ends.length * 40,
    height: 2,
    free: 'order',
    layer: above ? 'first' : 'last',
    ports: ends.map((e) => ({ id: at(e), side: above ? 'end' : 'start' })),
  });
  for (const end of ends)
    edges.push(
      above
        ? { id: lineOf(net, end), from: at(end), to: end.port }
        : { id: lineOf(net, end), from: end.port, to: at(end) },
    );
}

/** What was laid out, without the boxes that only stood for rails, from the corner of what is left. */
function path(laid: LaidGraph, nets: readonly Net[]): Path {
  const points = new Map(laid.edges.map((e) => [e.id, e.points]));
  const nodes = laid.nodes.filter((n) => !n.id.startsWith(RAIL) && !n.id.startsWith(DOT));
  const dots = laid.nodes.flatMap(({ id, x, y }) =>
    id.startsWith(DOT) ? [{ net: id.slice(DOT.length), x: x + 1, y: y + 1 }] : [],
  );
  const rails = nets.filter(isRail).flatMap((net) =>
    net.ends.map((end) => {
      const above = net.joint === 'above';
      const whole = points.get(lineOf(net, end)) ?? [];
      return { net: net.name, port: end.port, above, points: fromRail(whole, above) };
    }),
  );
  const lines = nets.flatMap((net) =>
    isRail(net)
      ? []
      : net.ends.flatMap((end) => {
          const found = points.get(lineOf(net, end));
          return found ? [{ net: net.name, port: end.port, points: found }] : [];
        }),
  );
  const all = [...lines, ...rails].flatMap((l) => l.points);
  const left = Math.min(...nodes.map((n) => n.x), ...all.map((p) => p[0]));
  const top = Math.min(...nodes.map((n) => n.y), ...all.map((p) => p[1]));
  const by = ([x, y]: Point): Point => [x - left, y - top];
  return {
    nodes: nodes.map((n) => ({ ...n, x: n.x - left, y: n.y - top })),
    lines: lines.map((l) => ({ ...l, points: l.points.map(by) })),
    rails: rails.map((l) => ({ ...l, points: l.points.map(by) })),
    dots: dots.map((d) => ({ ...d, x: d.x - left, y: d.y - top })),
    width: Math.max(...nodes.map((n) => n.x + n.width), ...all.map((p) => p[0])) - left,
    height: Math.max(...nodes.map((n) => n.y + n.height), ...all.map((p) => p[1])) - top,
  };
}

/**
 * The way of a line from where it turns off its rail for good: what runs beside the rail before is left to the rail itself.
 * The first point lies on the rail's side.
 */
function fromRail(points: readonly Point[], above: boolean): readonly Point[] {
  const way = above ? points : [...points].reverse();
  return way.length > 3 ? way.slice(2) : way;
}
