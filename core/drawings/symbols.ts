import type { Job } from '../job/index.js';
import type { PartSymbol } from '../parts/index.js';
import type { DrawnWay, ElementShape } from './drawing.js';

/** Column of an end and how high the element is, from the corner of the element. */
export interface Column {
  readonly landing: string;
  readonly side: 'start' | 'end';
  readonly x: number;
}

export interface SymbolOf {
  readonly shape: ElementShape;
  readonly by: PartSymbol | undefined;
  readonly columns: readonly Column[];
  readonly ways: readonly (readonly [a: string, b: string])[];
  readonly height: number;
  /** A source of alternating voltage. */
  readonly alternating: boolean;
}

/** Lines of a symbol as path data: those that stay, and each way open and closed. */
export interface Strokes {
  readonly fixed: string;
  readonly ways: readonly DrawnWay[];
  /** A sign written in the symbol. */
  readonly sign?: { readonly text: string; readonly x: number; readonly y: number };
}

/** Upper and lower end of the place of a symbol. */
const TOP = 32;
const LOW = 52;

const line = (x1: number, y1: number, x2: number, y2: number): string => `M${x1} ${y1}L${x2} ${y2}`;
const box = (x: number, y: number, w: number, h: number): string => `M${x} ${y}h${w}v${h}h${-w}z`;
const circle = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;

/** What works a contact, left of it: IEC 60617-7 (push, mushroom, turn, process). */
function actuator(by: PartSymbol | undefined, x: number, y: number): string {
  switch (by) {
    case 'push':
      return `${line(x - 5, y, x - 17, y)}M${x - 14} ${y - 5}h-3v10h3`;
    case 'mushroom':
      return `${line(x - 5, y, x - 17, y)}M${x - 17} ${y - 7}a8 8 0 0 0 0 14z`;
    case 'selector':
      return `${line(x - 5, y, x - 15, y)}M${x - 12} ${y - 5}h-3v10h-3`;
    case 'process':
      return `${line(x - 5, y, x - 11, y)}${box(x - 18, y - 4, 7, 8)}`;
    default:
      return '';
  }
}

/** A contact by IEC 60617-7: a blade that stands off or on; a break contact opens away from its stop. */
function iecContact(x: number, makes: boolean): { fixed: string; open: string; closed: string } {
  if (makes) return { fixed: '', open: line(x, LOW, x - 9, TOP + 2), closed: line(x, LOW, x, TOP) };
  return {
    fixed: line(x, TOP, x + 8, TOP),
    open: line(x, LOW, x - 9, TOP + 2),
    closed: line(x, LOW, x + 7, TOP - 2),
  };
}

/** A contact by NFPA 79 practice: two bars, struck through where it is closed at rest; hand contacts as studs with a bar. */
function nfpaContact(x: number, makes: boolean, hand: boolean) {
  const middle = (TOP + LOW) / 2;
  if (hand) {
    const studs = circle(x, TOP + 3, 3) + circle(x, LOW - 3, 3);
    const bar = (at: number): string => line(at, TOP + 2, at, LOW - 2);
    const [open, closed] = [bar(x - 9), bar(makes ? x - 4 : x + 4)];
    return { fixed: studs, open, closed };
  }
  const bars =
    line(x - 8, middle - 4, x + 8, middle - 4) + line(x - 8, middle + 4, x + 8, middle + 4);
  const stubs = line(x, TOP, x, middle - 4) + line(x, middle + 4, x, LOW);
  const strike = makes ? '' : line(x - 8, middle + 9, x + 8, middle - 9);
  return { fixed: bars + stubs + strike, open: '', closed: line(x, middle - 4, x, middle + 4) };
}

const handWorked: readonly (PartSymbol | undefined)[] = ['push', 'mushroom', 'selector'];

/** Lines from the ends to the symbol. */
const leads = (columns: readonly Column[], height: number, top: number, low: number): string =>
  columns
    .map(({ x, side }) => (side === 'start' ? line(x, 0, x, top) : line(x, low, x, height)))
    .join('');

/** A symbol that does not move: its lines, and from where to where its leads leave room for it. */
interface Still {
  readonly d: string;
  readonly top: number;
  readonly low: number;
  readonly sign?: Strokes['sign'];
}

/** Where a symbol lies: the column of its first end, those of its outermost, and half its height. */
interface Site {
  readonly x: number;
  readonly left: number;
  readonly right: number;
  readonly middle: number;
  readonly alternating: boolean;
  readonly practice: Job['practice'];
}

/** A box around all columns of an element, wider by a margin and higher by a rise. */
const around = ({ left, right }: Site, margin: number, rise: number): Still => ({
  d: box(left - margin, TOP - rise, right - left + 2 * margin, LOW - TOP + 2 * rise),
  top: TOP - rise,
  low: LOW + rise,
});

const stills: Readonly<Partial<Record<ElementShape, (site: Site) => Still>>> = {
  coil: (site) =>
    site.practice === 'IEC'
      ? around({ ...site, right: site.x, left: site.x }, 12, 0)
      : { d: circle(site.x, site.middle, 11), top: site.middle - 11, low: site.middle + 11 },
  lamp: ({ x, middle }) => ({
    d:
      circle(x, middle, 10) +
      line(x - 7, middle - 7, x + 7, middle + 7) +
      line(x - 7, middle + 7, x + 7, middle - 7),
    top: TOP,
    low: LOW,
  }),
  sounder: ({ x }) => ({
    d: `M${x - 10} ${LOW}a10 10 0 0 1 20 0z${line(x, TOP, x, LOW - 10)}`,
    top: TOP,
    low: LOW,
  }),
  meter: ({ x, middle }) => ({
    d: circle(x, middle, 10),
    top: TOP,
    low: LOW,
    sign: { text: 'V', x, y: middle + 4 },
  }),
  load: (site) => around({ ...site, right: site.x, left: site.x }, 7, 3),
  fuse: ({ x }) => ({
    d: box(x - 5, TOP - 2, 10, LOW - TOP + 4) + line(x, TOP, x, LOW),
    top: TOP,
    low: LOW,
  }),
  source: ({ x, middle, alternating }) => ({
    d:
      circle(x, middle, 10) +
      (alternating
        ? `M${x - 6} ${middle}q3 -6 6 0t6 0`
        : line(x - 5, middle - 2, x + 5, middle - 2) + line(x - 5, middle + 3, x + 5, middle + 3)),
    top: TOP,
    low: LOW,
  }),
  input: ({ x, middle }) => ({
    d: `${box(x - 11, TOP, 22, LOW - TOP)}${line(x - 6, middle, x + 5, middle)}M${x + 1} ${middle - 4}l4 4l-4 4`,
    top: TOP,
    low: LOW,
  }),
  through: ({ x, middle }) => ({ d: circle(x, middle, 4), top: middle - 4, low: middle + 4 }),
  link: ({ x, middle }) => ({
    d: line(x, middle - 8, x, middle + 8) + circle(x, middle - 8, 2) + circle(x, middle + 8, 2),
    top: middle - 8,
    low: middle + 8,
  }),
  primary: (site) => {
    const whole = around(site, 10, 4);
    return { ...whole, d: whole.d + line(site.left - 10, LOW - 4, site.right + 10, LOW - 4) };
  },
  filter: (site) => {
    const whole = around(site, 10, 2);
    return { ...whole, d: `${whole.d}M${site.left} ${site.middle}q5 -8 10 0t10 0` };
  },
  device: (site) => around(site, 12, 6),
  resistor: (site) => around(site, 5, 4),
  supply: ({ left, right }) => ({
    d: line(left - 10, LOW - 8, right + 10, LOW - 8),
    top: TOP,
    low: LOW - 8,
  }),
  earth: ({ x }) => ({ d: earthAt(x, 16), top: 16, low: 16 }),
  end: ({ x }) => ({ d: circle(x, 14, 4), top: 10, low: 10 }),
};

/**
 * How an element is drawn, by IEC 60617 or as NFPA 79 shows it.
 *
 * @example strokesOf({ shape: 'make', by: 'push', … }, 'IEC').ways[0].open // the blade standing off
 */
export function strokesOf(element: SymbolOf, practice: Job['practice']): Strokes {
  const { shape, columns, ways, height, alternating } = element;
  const xs = columns.map((c) => c.x);
  const site: Site = {
    x: xs[0] ?? 0,
    left: Math.min(...xs),
    right: Math.max(...xs),
    middle: height / 2,
    alternating,
    practice,
  };
  if (shape === 'dial') return dial(columns, height, ways);
  if (shape === 'motor') return motor(columns, site);
  const still = stills[shape]?.(site);
  if (!still) return contacts(element, site);
  return {
    fixed: leads(columns, height, still.top, still.low) + still.d,
    ways: ways.map(alwaysClosed),
    ...(still.sign ? { sign: still.sign } : {}),
  };
}

const alwaysClosed = ([a, b]: SymbolOf['ways'][number]): DrawnWay => ({
  a,
  b,
  open: '',
  closed: '',
  rest: 'closed',
});

function motor(columns: readonly Column[], { left, right }: Site): Strokes {
  const centre = (left + right) / 2;
  const lead = ({ x }: Column): string => `M${x} 0V26L${centre + (x - centre) * 0.35} 38`;
  return {
    fixed: columns.map(lead).join('') + circle(centre, 56, 20),
    ways: [],
    sign: { text: 'M', x: centre, y: 61 },
  };
}

/** An earth below a line that ends at y. */
export const earthAt = (x: number, y: number): string =>
  line(x - 9, y, x + 9, y) + line(x - 6, y + 4, x + 6, y + 4) + line(x - 3, y + 8, x + 3, y + 8);

function contacts(
  { shape, by, columns, ways, height }: SymbolOf,
  { left, right, practice }: Site,
): Strokes {
  const makes = shape !== 'break';
  const hand = handWorked.includes(by);
  const xOf = new Map(columns.map((c) => [c.landing, c.x]));
  const each = ways.map(([a, b]) => {
    const x = xOf.get(a) ?? left;
    return { a, b, ...(practice === 'IEC' ? iecContact(x, makes) : nfpaContact(x, makes, hand)) };
  });
  const y = (TOP + LOW) / 2;
  const linked = shape === 'poles' && right > left ? `M${left - 5} ${y}H${right - 5}` : '';
  const worked = practice === 'IEC' || !hand ? actuator(by, left, y) : handle(by, left, y);
  const fixed = each.map((e) => e.fixed).join('') + linked + (shape === 'poles' ? '' : worked);
  return {
    fixed: leads(columns, height, TOP, LOW) + fixed,
    ways: each.map(({ a, b, open, closed }) => ({
      a,
      b,
      open,
      closed,
      // Poles are drawn as they stand before anything is switched on: open.
      rest: shape === 'break' ? 'closed' : 'open',
    })),
  };
}

/** A button or knob at the bar of a hand contact, left of it. */
function handle(by: PartSymbol | undefined, x: number, y: number): string {
  const stem = line(x - 9, y, x - 16, y);
  if (by === 'mushroom') return `${stem}M${x - 16} ${y - 7}a8 8 0 0 0 0 14z`;
  return by === 'selector'
    ? `${stem}${circle(x - 18, y, 3)}`
    : `${stem}${line(x - 16, y - 5, x - 16, y + 5)}`;
}

/** A track with its wiper, which leaves beside it. */
function dial(columns: readonly Column[], height: number, ways: SymbolOf['ways']): Strokes {
  const [top, wiper, low] = columns;
  const middle = (TOP + LOW) / 2;
  const arrow = `M${wiper.x} ${height}V${middle}H${top.x + 6}m5 -4l-5 4l5 4`;
  return {
    fixed:
      line(top.x, 0, top.x, TOP - 4) +
      box(top.x - 6, TOP - 4, 12, LOW - TOP + 8) +
      line(low.x, LOW + 4, low.x, height) +
      arrow,
    ways: ways.map(alwaysClosed),
  };
}
