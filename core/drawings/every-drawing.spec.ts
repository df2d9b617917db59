import { asPlanned } from '../installation/index.js';
import type { Adopted } from '../job/index.js';
import { layouter } from '../testing/layouter.js';
import { everyArrangement } from '../testing/matrix.js';
import { circuitDiagram } from './circuit.js';
import { connectionDrawing } from './connection.js';
import type { CircuitDiagram, ConnectionDrawing, DrawnLabel } from './drawing.js';
import { legibility, overlapping } from './measure.js';

const said = (pairs: readonly [DrawnLabel, DrawnLabel][]): string[] =>
  pairs.map(([a, b]) => `${a.text} over ${b.text} at ${Math.round(a.x)}, ${Math.round(a.y)}`);

/** Landings of the wires of a plan that are told at no place of the diagram with that wire. */
function untold({ wires }: Adopted, { elements }: CircuitDiagram): string[] {
  const told = new Set(
    elements.flatMap((e) =>
      [...e.ends, ...e.earths].flatMap((end) => end.wires.map((w) => `${w} ${end.landing}`)),
    ),
  );
  return Object.entries(wires).flatMap(([id, w]) =>
    // A protective conductor from elsewhere than a protective terminal ends in an earth.
    [w.from, w.to].map((at) => `${id} ${at}`).filter((key) => !told.has(key)),
  );
}

/** Wires whose line does not run from the one terminal to the other. */
function astray({ wires }: Adopted, drawing: ConnectionDrawing): string[] {
  const rows = new Map(
    drawing.boxes.flatMap((b) =>
      b.rows.flatMap((row) => (row.wire ? [[`${row.wire.id} ${row.landing}`, row] as const] : [])),
    ),
  );
  return drawing.lines.flatMap(({ id, points }) => {
    const ends = [
      [wires[id].from, points[0]],
      [wires[id].to, points[points.length - 1]],
    ] as const;
    return ends.flatMap(([landing, [x, y]]) => {
      const row = rows.get(`${id} ${landing}`);
      const near = row !== undefined && Math.abs(row.x - x) < 1 && Math.abs(row.y - y) < 1;
      return near ? [] : [`${wires[id].number} at ${landing}`];
    });
  });
}

const wide = { words: {}, width: 1200 };

/** A page of 1280 shows it at four fifths of its size at least; with two contactors in the way of the power at a little less. */
const WIDEST = 1600;

const cases = everyArrangement();

describe('the drawings of every arrangement', () => {
  for (const family of new Set(cases.map((c) => c.profile.family)))
    it(`on ${family} tell every wire at both its ends, no line or text on another, few crossings`, async () => {
      const layout = layouter();
      for (const { name, job, profile } of cases.filter((c) => c.profile.family === family)) {
        const adopted = job.adopted as Adopted;
        const circuit = await circuitDiagram(job, profile, asPlanned(job, profile), wide, layout);
        expect(untold(adopted, circuit)).withContext(name).toEqual([]);
        expect(said(overlapping(circuit.labels)))
          .withContext(name)
          .toEqual([]);
        const seen = legibility(circuit.lines, 'net');
        expect(seen.shared).withContext(name).toBe(0);
        expect(seen.crossings).withContext(name).toBeLessThanOrEqual(8);

        const drawn: ConnectionDrawing[] = [];
        for (const of of ['control', 'power'] as const)
          drawn.push(await connectionDrawing(adopted, profile, of, layout));
        const ids = drawn.flatMap((d) => d.lines.map((l) => l.id)).sort();
        expect(ids).withContext(name).toEqual(Object.keys(adopted.wires).sort());
        const there = new Set(drawn.flatMap((d) => d.boxes.map((b) => b.id)));
        const absent = Object.keys(adopted.devices).filter((id) => !there.has(id));
        expect(absent).withContext(name).toEqual([]);
        for (const d of drawn) {
          expect(astray(adopted, d)).withContext(name).toEqual([]);
          expect(said(overlapping(d.labels)))
            .withContext(name)
            .toEqual([]);
          expect(legibility(d.lines, 'wire').shared).withContext(name).toBe(0);
          expect(d.width).withContext(`${name}, width`).toBeLessThanOrEqual(WIDEST);
        }
        const crossings = drawn.reduce((sum, d) => sum + legibility(d.lines, 'wire').crossings, 0);
        expect(crossings).withContext(name).toBeLessThanOrEqual(40);
      }
    }, 400_000);
});
