import type { Graph, GraphNode, LaidGraph, Layouter, LaidNode, Point } from './graph.js';

interface Box {
  id: string;
  x?: number;
  y?: number;
  width?: number;
  height?: number;
}

/** The part of the layout package's own format that is used here. */
export interface LayeredGraph extends Box {
  layoutOptions?: Record<string, string>;
  children?: LayeredGraph[];
  ports?: (Box & { layoutOptions?: Record<string, string> })[];
  edges?: {
    id: string;
    sources: string[];
    targets: string[];
    sections?: { startPoint: XY; endPoint: XY; bendPoints?: XY[] }[];
  }[];
}

interface XY {
  x: number;
  y: number;
}

const constraints = { sides: 'FREE', order: 'FIXED_SIDE', nothing: 'FIXED_POS' } as const;
const layers = { first: 'FIRST_SEPARATE', last: 'LAST_SEPARATE' } as const;

const sides = {
  down: { start: 'NORTH', end: 'SOUTH' },
  right: { start: 'WEST', end: 'EAST' },
} as const;

/** Place of a port from the corner of its node. */
function placeOf(
  { width, height }: GraphNode,
  side: 'start' | 'end',
  at: number,
  way: Graph['way'],
) {
  return way === 'down'
    ? { x: at, y: side === 'start' ? 0 : height }
    : { x: side === 'start' ? 0 : width, y: at };
}

function boxOf(node: GraphNode, way: Graph['way']): LayeredGraph {
  return {
    id: node.id,
    width: node.width,
    height: node.height,
    layoutOptions: {
      'elk.portConstraints': constraints[node.free],
      ...(node.layer ? { 'elk.layered.layering.layerConstraint': layers[node.layer] } : {}),
    },
    ports: node.ports.map(({ id, side, at }) => ({
      id,
      width: 0,
      height: 0,
      ...(at === undefined ? {} : placeOf(node, side, at, way)),
      layoutOptions: { 'elk.port.side': sides[way][side] },
    })),
  };
}

/** A graph as the layout package takes it: boxes in layers, lines of right angles. */
export function layeredGraph({ nodes, edges, way, aspect, folded, spacing }: Graph): LayeredGraph {
  return {
    id: 'drawing',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': way.toUpperCase(),
      'elk.edgeRouting': 'ORTHOGONAL',
      'elk.aspectRatio': String(aspect),
      ...(folded ? { 'elk.layered.wrapping.strategy': 'MULTI_EDGE' } : {}),
      'elk.padding': '[top=16,left=16,bottom=16,right=16]',
      'elk.spacing.nodeNode': String(spacing.node),
      'elk.spacing.edgeEdge': String(spacing.edge),
      'elk.spacing.edgeNode': String(spacing.edge),
      'elk.spacing.componentComponent': String(2 * spacing.node),
      'elk.layered.spacing.nodeNodeBetweenLayers': String(spacing.layer),
      'elk.layered.spacing.edgeEdgeBetweenLayers': String(spacing.edge),
      'elk.layered.spacing.edgeNodeBetweenLayers': String(spacing.edge),
    },
    children: nodes.map((node) => boxOf(node, way)),
    edges: edges.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  };
}

const point = ({ x, y }: XY): Point => [x, y];

function laidNode({ id, x = 0, y = 0, width = 0, height = 0, ports = [] }: LayeredGraph): LaidNode {
  return {
    id,
    x,
    y,
    width,
    height,
    ports: ports.map((p) => ({ id: p.id, x: x + (p.x ?? 0), y: y + (p.y ?? 0) })),
  };
}

/** What the layout package gives, in our own words. */
export function laidGraph({ width = 0, height = 0, children, edges }: LayeredGraph): LaidGraph {
  return {
    width,
    height,
    nodes: (children ?? []).map(laidNode),
    edges: (edges ?? []).map(({ id, sections }) => ({
      id,
      points: (sections ?? []).flatMap((s) => [
        point(s.startPoint),
        ...(s.bendPoints ?? []).map(point),
        point(s.endPoint),
      ]),
    })),
  };
}

/**
 * A layouter over the package, which runs in a worker of the page or in the command line.
 *
 * @example layouterOver((graph) => new ELK().layout(graph))
 */
export const layouterOver =
  (run: (graph: LayeredGraph) => Promise<LayeredGraph>): Layouter =>
  async (graph) =>
    laidGraph(await run(layeredGraph(graph)));
