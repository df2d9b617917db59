import type { Point } from './graph.js';

/** A text in a drawing: its base line begins, ends or is centred at its place. */
export interface DrawnLabel {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly kind: 'tag' | 'function' | 'terminal' | 'number' | 'far' | 'rail' | 'sign';
  /** What it belongs to: a landing, or a device. */
  readonly of: string;
}

/** Where a wire or an element meets a terminal in a drawing. */
export interface DrawnEnd {
  readonly landing: string;
  /** Name of the terminal. */
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly side: 'start' | 'end';
}

/** One place of a terminal in the connection drawing, with the wire that ends there and where it comes from. */
export interface DrawnRow extends DrawnEnd {
  readonly wire: { readonly id: string; readonly number: string; readonly far: string } | undefined;
}

/** A device with its terminals, each place a row of its own. */
export interface DrawnBox {
  readonly id: string;
  readonly tag: string;
  readonly kind: string;
  /** The drive or soft starter itself. */
  readonly main: boolean;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly rows: readonly DrawnRow[];
}

/** A line of right angles: a wire of the connection drawing, a piece of a potential in the circuit diagram. */
export interface DrawnLine {
  readonly id: string;
  /** Wires it stands for. */
  readonly wires: readonly string[];
  /** Landing at which its potential can be measured. */
  readonly at: string;
  /** Name of the potential: one for everything that wires join. */
  readonly net: string;
  readonly class: string;
  readonly points: readonly Point[];
  /** A wire of it was found open or was never landed. */
  readonly open?: true;
}

/** Devices and terminals as they lie, and every wire between them. */
export interface ConnectionDrawing {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly DrawnBox[];
  readonly lines: readonly DrawnLine[];
  readonly labels: readonly DrawnLabel[];
}

/** What an element of the circuit diagram is drawn as. */
export type ElementShape =
  | 'make'
  | 'break'
  | 'coil'
  | 'lamp'
  | 'sounder'
  | 'load'
  | 'meter'
  | 'resistor'
  | 'dial'
  | 'fuse'
  | 'source'
  | 'input'
  | 'through'
  | 'link'
  | 'transistor'
  | 'primary'
  | 'poles'
  | 'filter'
  | 'device'
  | 'motor'
  | 'supply'
  | 'end'
  | 'earth';

/** A way between two landings that can be open or closed, with the path data of either; where both are empty it is always closed. */
export interface DrawnWay {
  readonly a: string;
  readonly b: string;
  readonly open: string;
  readonly closed: string;
  /** As it stands with nothing worked and no power. */
  readonly rest: 'open' | 'closed';
}

/** An end of an element with the wires that land there. */
export type WiredEnd = DrawnEnd & { readonly wires: readonly string[] };

/** An element between its ends where it acts in the current path. */
export interface DrawnElement {
  readonly id: string;
  /** Device it belongs to. */
  readonly of: string;
  readonly tag: string;
  readonly shape: ElementShape;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly ends: readonly WiredEnd[];
  /** Protective terminals of its device. */
  readonly earths: readonly WiredEnd[];
  /** Lines of its symbol as path data. */
  readonly strokes: string;
  /** Pairs of its ends that can be a way. */
  readonly ways: readonly DrawnWay[];
  /** Other elements of the same device: contacts of a coil, the coil of a contact. */
  readonly also: readonly string[];
}

/** Current paths with everything that lies in them. */
export interface CircuitDiagram {
  readonly width: number;
  readonly height: number;
  readonly elements: readonly DrawnElement[];
  readonly lines: readonly DrawnLine[];
  /** Places where lines of one potential meet. */
  readonly dots: readonly { readonly net: string; readonly x: number; readonly y: number }[];
  readonly labels: readonly DrawnLabel[];
}
