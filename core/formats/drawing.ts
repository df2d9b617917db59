import { presentTerminals, type Profile } from '../catalogue/index.js';
import {
  landingParts,
  sortedEntries,
  type Adopted,
  type AdoptedWire,
  type Job,
} from '../job/index.js';
import { parts, terminalsOf, type PartSymbol } from '../parts/index.js';

/** One device in the drawing with the places of its terminals. */
export interface DrawnDevice {
  readonly id: string;
  readonly tag: string;
  readonly kind: string;
  /** The drive or soft starter itself: drawn below, its terminals upwards. */
  readonly main: boolean;
  /** Shape by which it is drawn; none for the device itself. */
  readonly symbol: PartSymbol | undefined;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly terminals: readonly {
    readonly landing: string;
    readonly name: string;
    readonly x: number;
    readonly y: number;
    readonly kind: string;
  }[];
}

/** A wire as a line of right angles. */
export interface DrawnWire {
  readonly id: string;
  readonly number: string;
  readonly class: string;
  readonly colour: string;
  readonly points: readonly (readonly [number, number])[];
  readonly label: readonly [number, number];
}

export interface Drawing {
  readonly width: number;
  readonly height: number;
  readonly devices: readonly DrawnDevice[];
  readonly wires: readonly DrawnWire[];
}

const PITCH = 52;
const BOX = 64;
const TRACK = 13;
const MARGIN = 24;

/** Which of the two drawings: the motor's and supply's conductors, or everything that commands them. */
export type DrawingOf = 'control' | 'power';

const powerClasses: readonly AdoptedWire['class'][] = ['mains', 'neutral', 'motor', 'pe'];
const powerTerminals: readonly string[] = ['mains', 'motor', 'power'];

type Wires = readonly (readonly [string, AdoptedWire])[];

/**
 * Lays out one of the two circuits: the device's terminal row below as it lies on the device, the parts above, and between
 * them one track a wire, so that no two wires run over each other. Every wire of the plan is in one of the two, with
 * whatever it lands on; a part that lies in both is drawn in both.
 */
export function layOut(job: Job, profile: Profile, drawing: DrawingOf): Drawing {
  const { adopted } = job;
  if (!adopted) return { width: 0, height: 0, devices: [], wires: [] };
  const wires: Wires = sortedEntries(
    Object.fromEntries(
      sortedEntries(adopted.wires)
        .filter(([, w]) => powerClasses.includes(w.class) === (drawing === 'power'))
        .map(([id, w]) => [`${w.number} ${id}`, [id, w] as const]),
    ),
  ).map(([, entry]) => entry);
  const landed = new Set(wires.flatMap(([, w]) => [w.from, w.to]));
  const rowY = MARGIN + BOX + MARGIN + wires.length * TRACK + MARGIN;
  const above = partsAbove(adopted, drawing, landed);
  const row = deviceRow(adopted, profile, drawing, landed, rowY);
  const devices = [...above, row];
  const right = Math.max(...devices.map((d) => d.x + d.width));
  return {
    width: right + MARGIN,
    height: rowY + BOX + MARGIN,
    devices,
    wires: drawWires(wires, devices, MARGIN + BOX + MARGIN),
  };
}

/** Parts of one drawing side by side: those its wires land on, and those of its kind that have no wire at all. */
function partsAbove(
  adopted: Adopted,
  drawing: DrawingOf,
  landed: ReadonlySet<string>,
): DrawnDevice[] {
  const wired = new Set(
    Object.values(adopted.wires).flatMap((w) =>
      [w.from, w.to].map((end) => landingParts(end).device),
    ),
  );
  const drawn: DrawnDevice[] = [];
  let x = MARGIN;
  const along = drawing === 'power' ? wayOfPower(adopted) : [];
  // What does not lie in the way of the power comes after it.
  const rank = (id: string): number => (along.includes(id) ? along.indexOf(id) : along.length);
  const inOrder = sortedEntries(adopted.devices).sort(
    ([x, a], [y, b]) => rank(x) - rank(y) || a.tag.localeCompare(b.tag, 'en', { numeric: true }),
  );
  for (const [id, device] of inOrder) {
    if (id === adopted.device) continue;
    const all = terminalsOf(device);
    const here = all.filter((name) => landed.has(`${id}:${name}`));
    const own = parts[device.kind]?.power === true ? 'power' : 'control';
    if (here.length === 0 && (wired.has(id) || own !== drawing)) continue;
    // In the drawing it does not belong to, only what is wired there.
    const names = own === drawing || here.length === 0 ? all : here;
    const width = Math.max(names.length * PITCH, 2 * PITCH);
    const terminals = names.map((name, i) => ({
      landing: `${id}:${name}`,
      name,
      x: x + PITCH / 2 + (i * width) / names.length,
      y: MARGIN + BOX,
      kind: device.kind,
    }));
    const { tag, kind } = device;
    const symbol = parts[kind]?.symbol;
    drawn.push({ id, tag, kind, symbol, main: false, x, y: MARGIN, width, height: BOX, terminals });
    // On the grid of the terminals, so that no column of a part lies on one of the device below.
    x += width + PITCH;
  }
  return drawn;
}

/** Parts in the order in which the power passes them, from the supply to the device. */
function wayOfPower({ devices, wires, device }: Adopted): string[] {
  const feeds = Object.values(wires).filter((w) => w.class === 'mains');
  const way = Object.keys(devices).filter((id) => {
    const { symbol, power } = parts[devices[id].kind] ?? {};
    return symbol === 'source' && power === true;
  });
  for (const at of way)
    for (const { from, to } of feeds) {
      const [a, b] = [landingParts(from).device, landingParts(to).device];
      const next = a === at ? b : b === at ? a : undefined;
      if (next !== undefined && next !== device && !way.includes(next)) way.push(next);
    }
  return way;
}

/** The device's own terminals of one drawing in the order in which they lie on it. */
function deviceRow(
  adopted: Adopted,
  profile: Profile,
  drawing: DrawingOf,
  landed: ReadonlySet<string>,
  y: number,
): DrawnDevice {
  const id = adopted.device;
  const shown = presentTerminals(profile).filter(
    (name) =>
      landed.has(`${id}:${name}`) ||
      powerTerminals.includes(profile.terminals[name].kind) === (drawing === 'power'),
  );
  return {
    id,
    tag: adopted.devices[id]?.tag ?? id,
    kind: adopted.devices[id]?.kind ?? '',
    symbol: undefined,
    main: true,
    x: MARGIN + PITCH / 2,
    y,
    width: Math.max(1, shown.length) * PITCH,
    height: BOX,
    terminals: shown.map((name, i) => ({
      landing: `${id}:${name}`,
      name,
      x: MARGIN + PITCH + i * PITCH,
      y,
      kind: profile.terminals[name].kind,
    })),
  };
}

/** Steps to the side at which a further wire leaves its terminal. */
const SIDE = 7;
const MOST_SIDES = 6;

/** The columns in which wires run, so that each takes one that is free over its height. */
class Columns {
  private readonly taken: { x: number; from: number; to: number }[] = [];

  /** Column of a wire that leaves a terminal for a track: the terminal's own, or the nearest that is free. */
  take(x: number, y: number, track: number): number {
    const [from, to] = [Math.min(y, track), Math.max(y, track)];
    const isFree = (column: number): boolean =>
      this.taken.every((t) => Math.abs(t.x - column) > 1 || t.to < from || t.from > to);
    const sides = Array.from({ length: 2 * MOST_SIDES + 1 }, (_, i) =>
      i % 2 ? (SIDE * (i + 1)) / 2 : (-SIDE * i) / 2,
    );
    const column = x + (sides.find((side) => isFree(x + side)) ?? 0);
    this.taken.push({ x: column, from, to });
    return column;
  }
}

function drawWires(wires: Wires, devices: readonly DrawnDevice[], topY: number): DrawnWire[] {
  const places = new Map(devices.flatMap((d) => d.terminals.map((t) => [t.landing, t] as const)));
  const columns = new Columns();
  return wires.flatMap(([id, wire], i) => {
    const from = places.get(wire.from);
    const to = places.get(wire.to);
    if (!from || !to) return [];
    const y = topY + i * TRACK;
    const [x1, x2] = [columns.take(from.x, from.y, y), columns.take(to.x, to.y, y)];
    const points: [number, number][] = [
      [x1, from.y],
      [x1, y],
      [x2, y],
      [x2, to.y],
    ];
    const label = [(x1 + x2) / 2, y] as const;
    return [{ id, number: wire.number, class: wire.class, colour: wire.colour, points, label }];
  });
}

const escape = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

/** The drawing as an SVG file of its own, readable in black and white. */
export function drawingSvg(drawing: Drawing, title: string): string {
  const boxes = drawing.devices.map(
    (d) =>
      `<rect x="${d.x}" y="${d.y}" width="${d.width}" height="${d.height}" fill="none" stroke="black"/><text x="${d.x + 6}" y="${d.y + (d.main ? 56 : 16)}" font-weight="bold">${escape(d.tag)}</text>` +
      d.terminals
        .map(
          (t) =>
            `<circle cx="${t.x}" cy="${t.y}" r="4" fill="white" stroke="black"/><text x="${t.x}" y="${t.y + (d.main ? 22 : -10)}" text-anchor="middle">${escape(t.name)}</text>`,
        )
        .join(''),
  );
  const wires = drawing.wires.map(
    (w) =>
      `<polyline points="${w.points.map((p) => p.join(',')).join(' ')}" fill="none" stroke="black"/><text x="${w.label[0]}" y="${w.label[1] - 2}" text-anchor="middle">${escape(w.number)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${drawing.width} ${drawing.height}" font-family="sans-serif" font-size="11"><title>${escape(title)}</title>${boxes.join('')}${wires.join('')}</svg>\n`;
}
