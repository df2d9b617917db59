import type { DrawnLabel, DrawnLine } from './drawing.js';
import type { Point } from './graph.js';

interface Piece {
  readonly net: string;
  readonly upright: boolean;
  /** Where it lies, and from where to where it runs. */
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** Lines nearer than this lie on each other, in units of the drawing. */
const SAME = 1;

function piecesOf(lines: readonly DrawnLine[], of: (line: DrawnLine) => string): Piece[] {
  return lines.flatMap((line) =>
    line.points.slice(1).map((q: Point, i): Piece => {
      const p = line.points[i];
      const upright = Math.abs(p[0] - q[0]) < SAME;
      const [at, a, b] = upright ? [p[0], p[1], q[1]] : [p[1], p[0], q[0]];
      return { net: of(line), upright, at, from: Math.min(a, b), to: Math.max(a, b) };
    }),
  );
}

/** How good a drawing can be followed by eye. */
export interface Legibility {
  /** Places where lines of two circuits cross. */
  readonly crossings: number;
  /** Pieces of two circuits that lie on each other. */
  readonly shared: number;
}

/**
 * Counts where lines cross and where they lie on each other.
 *
 * @param apart what makes two lines different: each wire by itself, or its potential
 * @example legibility(drawing.lines, 'wire').shared // 0
 */
export function legibility(lines: readonly DrawnLine[], apart: 'wire' | 'net'): Legibility {
  const pieces = piecesOf(lines, (l) => (apart === 'wire' ? l.id : l.net));
  let [crossings, shared] = [0, 0];
  pieces.forEach((p, i) => {
    for (const q of pieces.slice(i + 1)) {
      if (p.net === q.net) continue;
      if (p.upright === q.upright) {
        const over = Math.min(p.to, q.to) - Math.max(p.from, q.from);
        if (Math.abs(p.at - q.at) < SAME && over > SAME) shared++;
        continue;
      }
      if (q.from < p.at && p.at < q.to && p.from < q.at && q.at < p.to) crossings++;
    }
  });
  return { crossings, shared };
}

/** Width of a sign and height of a text, as they are drawn at least. */
const SIGN = 6;
const TEXT_HEIGHT = 9;

/**
 * Pairs of labels that lie on each other.
 *
 * @example overlapping(drawing.labels) // []
 */
export function overlapping(labels: readonly DrawnLabel[]): [DrawnLabel, DrawnLabel][] {
  const boxes = labels.map((label) => {
    const width = SIGN * label.text.length;
    const left =
      label.anchor === 'start' ? label.x : label.x - (label.anchor === 'end' ? width : width / 2);
    return { label, left, right: left + width, top: label.y - TEXT_HEIGHT, low: label.y };
  });
  return boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter((b) => a.left < b.right && b.left < a.right && a.top < b.low && b.top < a.low)
      .map((b): [DrawnLabel, DrawnLabel] => [a.label, b.label]),
  );
}
