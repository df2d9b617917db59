import ELK, { type ElkNode } from 'elkjs/lib/elk.bundled.js';
import {
  circuitDiagram,
  connectionDrawing,
  layouterOver,
  legibility,
  overlapping,
  type LayeredGraph,
} from '@tactron/core/drawings';
import { asBuilt } from '@tactron/core/installation';
import { drum, drumProfile } from './jobs';
import { median, type Row } from './measure';

/** Drawings of the drum: the first, when the layout package has seen nothing yet, and warm; and how they can be followed. */
export async function drawingRows(): Promise<Row[]> {
  const { adopted } = drum;
  if (!adopted) throw new Error('The drum has no plan.');
  const elk = new ELK();
  const layouter = layouterOver((g) => elk.layout(g as ElkNode) as Promise<LayeredGraph>);
  const draw = async () => {
    const begin = performance.now();
    const control = await connectionDrawing(adopted, drumProfile, 'control', layouter);
    const power = await connectionDrawing(adopted, drumProfile, 'power', layouter);
    const options = { words: {}, width: 1200 };
    const panel = asBuilt(drum, drumProfile);
    const circuit = await circuitDiagram(drum, drumProfile, panel, options, layouter);
    return { control, power, circuit, tookMs: performance.now() - begin };
  };
  const first = await draw();
  const warm: number[] = [];
  for (let i = 0; i < 7; i++) warm.push((await draw()).tookMs);
  const { control, power, circuit } = first;
  const wires = [control, power].map((d) => legibility(d.lines, 'wire'));
  const paths = legibility(circuit.lines, 'net');
  const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
  const shared = sum(wires.map((w) => w.shared)) + paths.shared;
  const labels = sum([control, power, circuit].map((d) => overlapping(d.labels).length));
  const count = (what: string, n: number, most: number): Row => ({
    what,
    measured: String(n),
    budget: most === 0 ? '0' : `≤ ${most}`,
    ok: n <= most,
  });
  const time = (what: string, x: number, most: number): Row => ({
    what,
    measured: `${x.toFixed(0)} ms`,
    budget: `≤ ${most} ms`,
    ok: x <= most,
  });
  return [
    time('drawings of the drum, first', first.tookMs, 900),
    time('  again', median(warm), 400),
    count('  crossings, connections', sum(wires.map((w) => w.crossings)), 40),
    count('  crossings, circuit diagram', paths.crossings, 3),
    count('  lines on each other', shared, 0),
    count('  texts on each other', labels, 0),
  ];
}
