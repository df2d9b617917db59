export { circuitDiagram, type CircuitOptions, type CircuitWords } from './circuit.js';
export { closedWhen, worksWhen, type ClosedWhen } from './closed.js';
export { connectionDrawing, drawnLandings, type DrawingOf, type DrawnPanel } from './connection.js';
export type {
  CircuitDiagram,
  ConnectionDrawing,
  DrawnBox,
  DrawnElement,
  DrawnEnd,
  DrawnLabel,
  DrawnLine,
  DrawnRow,
  DrawnWay,
  ElementShape,
  WiredEnd,
} from './drawing.js';
export type { Graph, LaidGraph, Layouter } from './graph.js';
export { layeredGraph, layouterOver, type LayeredGraph } from './layered.js';
export { legibility, overlapping, type Legibility } from './measure.js';
export { isReadable, scaleOnSheet } from './sheet.js';
export { circuitSvg, connectionSvg } from './svg.js';
