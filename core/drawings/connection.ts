import { presentTerminals, type Profile } from '../catalogue/index.js';
import { netsOf, type Panel } from '../installation/index.js';
import { landingName, landingParts, sortedEntries, type AdoptedWire } from '../job/index.js';
import { parts, terminalsOf } from '../parts/index.js';
import type { ConnectionDrawing, DrawnBox, DrawnLabel, DrawnLine, DrawnRow } from './drawing.js';
import type { Graph, GraphNode, LaidGraph, LaidNode, Layouter } from './graph.js';

/** Which of the two: the motor's and supply's conductors, or everything that commands them. */
export type DrawingOf = 'control' | 'power';

const powerClasses: readonly AdoptedWire['class'][] = ['mains', 'neutral', 'motor', 'pe'];
const powerTerminals: readonly string[] = ['mains', 'motor', 'power'];

/** Height of a row and of the head of a box. */
export const ROW = 15;
export const HEAD = 24;
const FOOT = 5;
/** Width of one sign of the text beside a terminal, and of the room around it. */
const SIGN = 6.7;
const ROOM = 14;
const LEAST_WIDTH = 74;

const spacing = { node: 18, layer: 26, edge: 9 } as const;
const ASPECT = 1.6;
/** Width that a folded drawing is to have: what a page of 1280 shows without being moved. */
const PAGE = 1240;
/** Width up to which a drawing stays one row: at four fifths of its size it is on that page, and easier to follow than folded. */
const ONE_ROW = 1.25 * PAGE;

/** A place of a terminal: free, or with the end of one wire. */
interface Place {
  readonly landing: string;
  readonly name: string;
  readonly wire: DrawnRow['wire'];
  readonly port: string | undefined;
}

interface Box {
  readonly id: string;
  readonly main: boolean;
  readonly places: readonly Place[];
}

/** What is wired: a plan that was adopted, or the panel as it is built. */
export type DrawnPanel = Pick<Panel, 'device' | 'devices' | 'wires'> & Partial<Pick<Panel, 'open'>>;

const nothing: ConnectionDrawing = { width: 0, height: 0, boxes: [], lines: [], labels: [] };

type Wires = readonly (readonly [string, AdoptedWire])[];

/**
 * The connection drawing: devices with their terminals and one line a wire, no line on another. The terminals of the
 * device itself lie in their own order; those of other parts as the layout has fewest crossings.
 *
 * @param layouter lays boxes and lines; called twice, the second time with every terminal where the first has put it
 * @example (await connectionDrawing(job.adopted, profile, 'control', layouter)).lines.length // control wires of the plan
 */
export async function connectionDrawing(
  panel: DrawnPanel,
  profile: Profile,
  drawing: DrawingOf,
  layouter: Layouter,
): Promise<ConnectionDrawing> {
  const wires = wiresOf(panel, drawing);
  const boxes = boxesOf(panel, profile, drawing, wires);
  if (boxes.length === 0) return nothing;
  const edges = wires.map(([id]) => ({ id, from: `${id}.from`, to: `${id}.to` }));
  const graph = (nodes: GraphNode[]): Graph => ({
    nodes,
    edges,
    way: 'right',
    aspect: ASPECT,
    spacing,
  });
  const inOrder = drawing === 'control';
  const first = await layouter(graph(boxes.map((box) => looseNode(box, inOrder))));
  const seated = boxes.map((box) => seat(box, first));
  const laid = await foldedTo(PAGE, graph(seated.map((s) => seatedNode(s, inOrder))), layouter);
  const nets = netsOf({ wires: panel.wires, open: [], bridges: [] });
  const drawn = seated.map((s) => drawnBox(s, panel, laid));
  const byId = new Map(laid.edges.map((e) => [e.id, e.points]));
  return {
    width: laid.width,
    height: laid.height,
    boxes: drawn,
    labels: drawn.flatMap(labelsOf),
    lines: wires.map(([id, w]): DrawnLine => ({
      id,
      wires: [id],
      at: w.from,
      net: nets.of(w.from),
      class: w.class,
      points: byId.get(id) ?? [],
      ...(panel.open?.includes(id) ? { open: true as const } : {}),
    })),
  };
}

/** How far beside the proportions that fit a fold is tried: the layout cannot make every one. */
const FOLDS = [1, 1.15, 0.87, 1.3] as const;

/**
 * Lays a graph, folded where one row of it is much wider than a page; the row where the layout cannot fold it, or folding makes it
 * no narrower.
 */
async function foldedTo(width: number, graph: Graph, layouter: Layouter): Promise<LaidGraph> {
  const row = await layouter(graph);
  if (row.width <= ONE_ROW) return row;
  let best = row;
  for (const beside of FOLDS) {
    const aspect = (beside * width * width) / (row.width * row.height);
    const folded = await layouter({ ...graph, folded: true, aspect }).catch(() => row);
    if (folded.width < best.width) best = folded;
    if (best.width <= width) break;
  }
  return best;
}

/**
 * Landings that a connection drawing shows, with a wire or without: where a wire of it can be moved to.
 *
 * @example drawnLandings(job.adopted, profile, 'control').includes('device:D1') // true
 */
export function drawnLandings(panel: DrawnPanel, profile: Profile, drawing: DrawingOf): string[] {
  const wires = wiresOf(panel, drawing);
  const places = boxesOf(panel, profile, drawing, wires).flatMap((box) => box.places);
  return [...new Set(places.map((p) => p.landing))];
}

const wiresOf = ({ wires }: DrawnPanel, drawing: DrawingOf): Wires =>
  sortedEntries(wires).filter(([, w]) => powerClasses.includes(w.class) === (drawing === 'power'));

/** Every device that a wire of the drawing lands on, and those of its kind that have no wire at all. */
function boxesOf(panel: DrawnPanel, profile: Profile, drawing: DrawingOf, wires: Wires): Box[] {
  const ends = new Map<string, Place[]>();
  const place = (id: string, end: 'from' | 'to', wire: AdoptedWire): void => {
    const [landing, other] = end === 'from' ? [wire.from, wire.to] : [wire.to, wire.from];
    const far = landingName(panel.devices, other);
    const here: Place = {
      landing,
      name: landingParts(landing).terminal,
      wire: { id, number: wire.number, far },
      port: `${id}.${end}`,
    };
    ends.set(landing, [...(ends.get(landing) ?? []), here]);
  };
  for (const [id, wire] of wires) {
    place(id, 'from', wire);
    place(id, 'to', wire);
  }
  const wired = new Set(
    Object.values(panel.wires).flatMap((w) => [w.from, w.to].map((x) => landingParts(x).device)),
  );
  return sortedEntries(panel.devices).flatMap(([id, device]): Box[] => {
    const main = id === panel.device;
    const own = parts[device.kind]?.power === true ? 'power' : 'control';
    const known = main ? presentTerminals(profile) : terminalsOf(device);
    const landed = [...ends.keys()].filter((at) => landingParts(at).device === id);
    if (landed.length === 0 && !main && (wired.has(id) || own !== drawing)) return [];
    const all = [...new Set([...known, ...landed.map((at) => landingParts(at).terminal)])];
    const shown = all.filter(
      (name) => ends.has(`${id}:${name}`) || isOfDrawing(name, id, panel, profile, drawing),
    );
    const places = shown.flatMap((name): Place[] => {
      const landing = `${id}:${name}`;
      return ends.get(landing) ?? [{ landing, name, wire: undefined, port: undefined }];
    });
    return [{ id, main, places }];
  });
}

/** Whether a terminal without a wire is shown in this drawing: where a wire could be moved to. */
function isOfDrawing(
  name: string,
  id: string,
  { devices, device }: DrawnPanel,
  profile: Profile,
  drawing: DrawingOf,
): boolean {
  if (id === device)
    return powerTerminals.includes(profile.terminals[name]?.kind) === (drawing === 'power');
  return (parts[devices[id].kind]?.power === true ? 'power' : 'control') === drawing;
}

const heightOf = (rows: number): number => HEAD + Math.max(1, rows) * ROW + FOOT;
const rowAt = (row: number): number => HEAD + row * ROW + ROW / 2;

/** First time: only the device's own terminals have their places. */
function looseNode({ id, main, places }: Box, inOrder: boolean): GraphNode {
  const fixed = main && inOrder;
  return {
    id,
    width: 120,
    height: heightOf(places.length),
    free: fixed ? 'nothing' : 'sides',
    ...(fixed ? { layer: 'last' as const } : {}),
    ports: places.flatMap(({ port }, i) =>
      port === undefined
        ? []
        : [{ id: port, side: 'start' as const, ...(fixed ? { at: rowAt(i) } : {}) }],
    ),
  };
}

interface Seated extends Box {
  readonly start: readonly Place[];
  readonly end: readonly Place[];
}

/** Sides and order of a box's places as the first layout has them; those without a wire where there is room. */
function seat(box: Box, laid: LaidGraph): Seated {
  const node = laid.nodes.find((n) => n.id === box.id) as LaidNode;
  const at = new Map(node.ports.map((p) => [p.id, p]));
  const middle = node.x + node.width / 2;
  const height = ({ port }: Place): number => at.get(port as string)?.y ?? 0;
  const taken = box.places.filter((p) => p.port !== undefined);
  const isEnd = ({ port }: Place): boolean => (at.get(port as string)?.x ?? 0) > middle;
  const free = box.places.filter((p) => p.port === undefined);
  const start = taken.filter((p) => !isEnd(p)).sort((x, y) => height(x) - height(y));
  const end = taken.filter(isEnd).sort((x, y) => height(x) - height(y));
  if (end.length === 0 && box.main) return { ...box, start: box.places, end };
  for (const place of free) (end.length > 0 && end.length < start.length ? end : start).push(place);
  return { ...box, start, end };
}

const textWidth = (places: readonly Place[]): number =>
  places.length === 0
    ? 0
    : ROOM +
      SIGN *
        Math.max(
          ...places.map(
            ({ name, wire }) =>
              name.length + 1.5 + (wire ? wire.number.length + wire.far.length + 2 : 0),
          ),
        );

function seatedNode({ id, main, start, end }: Seated, inOrder: boolean): GraphNode {
  const ports = (places: readonly Place[], side: 'start' | 'end') =>
    places.flatMap(({ port }, i) => (port === undefined ? [] : [{ id: port, side, at: rowAt(i) }]));
  return {
    id,
    width: Math.max(LEAST_WIDTH, textWidth(start) + textWidth(end)),
    height: heightOf(Math.max(start.length, end.length)),
    free: 'nothing',
    ...(main && inOrder ? { layer: 'last' as const } : {}),
    ports: [...ports(start, 'start'), ...ports(end, 'end')],
  };
}

function drawnBox({ id, main, start, end }: Seated, panel: DrawnPanel, laid: LaidGraph): DrawnBox {
  const { x, y, width, height } = laid.nodes.find((n) => n.id === id) as LaidNode;
  const rows = (places: readonly Place[], side: 'start' | 'end'): DrawnRow[] =>
    places.map(({ landing, name, wire }, i) => ({
      landing,
      name,
      wire,
      side,
      x: side === 'start' ? x : x + width,
      y: y + rowAt(i),
    }));
  const { tag = id, kind = '' } = panel.devices[id] ?? {};
  return {
    id,
    tag,
    kind,
    main,
    x,
    y,
    width,
    height,
    rows: [...rows(start, 'start'), ...rows(end, 'end')],
  };
}

/** Texts of a box: its tag; at each place the terminal, the number of the wire and where it comes from. */
function labelsOf({ id, tag, x, y, rows }: DrawnBox): DrawnLabel[] {
  return [
    { text: tag, x: x + 7, y: y + 16, anchor: 'start', kind: 'tag', of: id },
    ...rows.flatMap(({ landing, name, wire, side, x: at, y: middle }): DrawnLabel[] => {
      const way = side === 'start' ? 1 : -1;
      const anchor = side;
      const place = (signs: number): number => at + way * (7 + SIGN * signs);
      const base = middle + 4;
      const label = (text: string, signs: number, kind: DrawnLabel['kind']): DrawnLabel => ({
        text,
        x: place(signs),
        y: base,
        anchor,
        kind,
        of: landing,
      });
      // Names of terminals are bold.
      const number = name.length + 1.5;
      return [
        label(name, 0, 'terminal'),
        ...(wire
          ? [
              label(wire.number, number, 'number'),
              label(wire.far, number + wire.number.length + 1, 'far'),
            ]
          : []),
      ];
    }),
  ];
}
