/** A place on the rim of a node where an edge ends: on the side that looks back to the first layer, or on the other. */
export interface GraphPort {
  readonly id: string;
  readonly side: 'start' | 'end';
  /** Distance along that side, where its place is fixed. */
  readonly at?: number;
}

/** A box to be placed. Lengths in the drawing's own units, about a pixel each. */
export interface GraphNode {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly ports: readonly GraphPort[];
  /** What the layout may change about its ports: their sides, their order along a side, or nothing. */
  readonly free: 'sides' | 'order' | 'nothing';
  /** A layer of its own before or behind everything else. */
  readonly layer?: 'first' | 'last';
}

export interface GraphEdge {
  readonly id: string;
  /** Ports it joins; the first lies before the second where the layout can have it so. */
  readonly from: string;
  readonly to: string;
}

/** What is to be laid out: boxes in layers, joined by lines of right angles. */
export interface Graph {
  readonly nodes: readonly GraphNode[];
  readonly edges: readonly GraphEdge[];
  /** Way in which one layer follows the other. */
  readonly way: 'down' | 'right';
  /** Width over height that is aimed at where parts of the graph hang on nothing else. */
  readonly aspect: number;
  /** Its row of layers is folded into several, one under the other, towards that width over height. */
  readonly folded?: boolean;
  readonly spacing: Spacing;
}

export interface Spacing {
  readonly node: number;
  readonly layer: number;
  readonly edge: number;
}

export interface LaidNode {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Places of its ports in the drawing. */
  readonly ports: readonly { readonly id: string; readonly x: number; readonly y: number }[];
}

export type Point = readonly [x: number, y: number];

export interface LaidGraph {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly LaidNode[];
  readonly edges: readonly { readonly id: string; readonly points: readonly Point[] }[];
}

/** Lays out a graph. It is brought from outside: the core has no layout of its own. */
export type Layouter = (graph: Graph) => Promise<LaidGraph>;
