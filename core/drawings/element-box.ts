import type { Panel } from '../installation/index.js';
import { landingParts } from '../job/index.js';
import type { DrawnLabel, WiredEnd } from './drawing.js';
import type { Elements, Element } from './elements.js';

/** What stands beside an element. */
export interface ElementText {
  readonly tag: string;
  /** What it is there for, in lines. */
  readonly lines: readonly string[];
}

/** Width of one sign of the text. */
const SIGN = 6.7;
const GAP = 8;
/** Half the width of a symbol. */
const HALF = 13;
/** Room left of a contact for what works it. */
const WORKED = 22;
const workedShapes: readonly string[] = ['make', 'break', 'transistor'];
const TALL = 84;
const SHORT = 44;

/** Box of an earth at the end of a rail. */
export const EARTH_BOX = { width: 30, height: SHORT } as const;

/** Height of an element: one end takes less than two. */
export const heightOf = ({ shape, ends }: Element): number =>
  shape === 'through' || shape === 'link' || ends.length === 1 ? SHORT : TALL;

/** Numbers of the wires at a landing, as they stand beside it. */
export const numbersAt = (
  landing: string,
  wiresAt: Elements['wiresAt'],
  panel: Pick<Panel, 'wires'>,
  only: readonly string[] = wiresAt.get(landing) ?? [],
): string => only.map((id) => panel.wires[id]?.number ?? '').join('·');

/**
 * Places of an element's ends from its left side, and how wide it is with its texts: the name of the terminal stands left
 * of its line, the numbers of the wires right of it, tag and function right of the symbol.
 */
export function placesOf(
  element: Element,
  text: ElementText,
  wiresAt: Elements['wiresAt'],
  panel: Pick<Panel, 'wires'>,
): { width: number; at: number[]; earthsAt: number[] } {
  const name = (landing: string): number => SIGN * landingParts(landing).terminal.length + GAP;
  const number = (landing: string): number =>
    SIGN * numbersAt(landing, wiresAt, panel, element.only).length + GAP;
  const columns = columnsOf(element);
  const worked = workedShapes.includes(element.shape) ? WORKED : HALF + 2;
  const at = new Map<string, number>();
  let x = 0;
  columns.forEach((column, i) => {
    x += Math.max(i === 0 ? worked : HALF, ...column.map(name));
    for (const landing of column) at.set(landing, x);
    x += Math.max(HALF, ...column.map(number));
  });
  const last = Math.max(...at.values());
  const words = SIGN * Math.max(text.tag.length, ...text.lines.map((l) => l.length)) + GAP;
  const beside = last + HALF + 4 + words;
  let width = Math.max(x, beside);
  const earthsAt = element.earths.map((landing) => {
    const place = width + Math.max(10, name(landing));
    width = place + Math.max(10, number(landing));
    return place;
  });
  return { width, at: element.ends.map((e) => at.get(e.landing) as number), earthsAt };
}

/** Ends above each other share a column; where one side has more, the rest stand beside. */
function columnsOf({ ends, shape }: Element): string[][] {
  const start = ends.filter((e) => e.side === 'start').map((e) => e.landing);
  const end = ends.filter((e) => e.side === 'end').map((e) => e.landing);
  // The wiper of a dial leaves beside its track.
  if (shape === 'dial') return [[start[0], end[1]], [end[0]]];
  return Array.from({ length: Math.max(start.length, end.length) }, (_, i) =>
    [start[i], end[i]].filter((l) => l !== undefined),
  );
}

/** Base line of the texts at the upper and the lower end. */
const BELOW_TOP = 12;
const ABOVE_LOW = 5;
const LEADING = 12;

/** The name of a terminal left of its line, the numbers of its wires right of it. */
export function endLabels({ landing, name, x, y, side }: WiredEnd, numbers: string): DrawnLabel[] {
  const base = side === 'start' ? y + BELOW_TOP : y - ABOVE_LOW;
  const label: DrawnLabel[] = [
    { text: name, x: x - 4, y: base, anchor: 'end', kind: 'terminal', of: landing },
    { text: numbers, x: x + 4, y: base, anchor: 'start', kind: 'number', of: landing },
  ];
  return label.filter((l) => l.text !== '');
}

/** Tag and function right of the symbol, which lies at a column, around a height. */
export function besideLabels(
  of: string,
  { tag, lines }: ElementText,
  column: number,
  middle: number,
): DrawnLabel[] {
  const x = column + HALF + 3;
  const label: DrawnLabel[] = [
    { text: tag, x, y: middle - 2, anchor: 'start', kind: 'tag', of },
    ...lines.map((text, i): DrawnLabel => ({
      text,
      x,
      y: middle - 2 + LEADING * (i + 1),
      anchor: 'start',
      kind: 'function',
      of,
    })),
  ];
  return label.filter((l) => l.text !== '');
}
