import type { Profile } from '../catalogue/index.js';
import { install, type Panel } from '../installation/index.js';
import { landingName, landingParts, type Job } from '../job/index.js';
import { parts } from '../parts/index.js';
import type { CircuitDiagram, DrawnElement, DrawnLabel, DrawnLine, WiredEnd } from './drawing.js';
import { elementsOf, type Element, type Elements } from './elements.js';
import {
  besideLabels,
  EARTH_BOX,
  endLabels,
  heightOf,
  numbersAt,
  placesOf,
  type ElementText,
} from './element-box.js';
import type { GraphNode, LaidNode, Layouter } from './graph.js';
import { landingOf, netsOfEnds, portOf, type Net } from './joints.js';
import { circuitsOf, isControl, pathsOf, type Path } from './paths.js';
import { rowsOf, type Rows } from './rows.js';
import { scaleOnSheet } from './sheet.js';
import { earthAt, strokesOf } from './symbols.js';
import { upright } from './upright.js';

/** Texts of a diagram that the core has no words for: what a device or a terminal is there for. */
export type CircuitWords = Readonly<Record<string, string>>;

export interface CircuitOptions {
  /** What a device or a terminal is there for, by id or landing; empty for a diagram without. */
  readonly words: CircuitWords;
  /** Width that is aimed at, paths that do not fit go on in further rows; or the one that fills a sheet across best. */
  readonly width: number | 'sheet';
  /** Only what commands, between its rails; only the power; or both. */
  readonly part?: 'all' | 'control' | 'power';
}

/**
 * The circuit diagram: current paths from top to bottom between their rails, contacts, coils and loads where they act, the
 * power beside the control. Everything that wires and the inside of the device join is one potential.
 *
 * @param panel the panel as planned or as it is built
 * @example (await circuitDiagram(job, profile, asPlanned(job, profile), { words, width: 1200 }, layouter)).elements.length
 */
export async function circuitDiagram(
  job: Job,
  profile: Profile,
  panel: Panel,
  { words, width, part = 'all' }: CircuitOptions,
  layouter: Layouter,
): Promise<CircuitDiagram> {
  const installation = install(job, profile, { from: 'planned' }, { panel });
  const found = elementsOf({ panel, installation, profile });
  if (found.elements.length === 0)
    return { width: 0, height: 0, elements: [], lines: [], dots: [], labels: [] };
  const elements = upright(found);
  const textOf = (e: Element): ElementText => textsOf(e, panel, words);
  const { wiresAt } = found;
  const nets = netsOfEnds(elements, found.nets);
  const { joined } = found;
  const draft = { elements, nets, wiresAt, joined, textOf, panel, practice: job.practice };
  const paths = await pathsOf(nodesOf(draft), nets, layouter);
  const shown = paths.filter((p) => part === 'all' || isControl(p) === (part === 'control'));
  const earthed = new Set(nets.flatMap((n) => (n.earths.length > 0 ? [n.name] : [])));
  const ordered = inOrder(shown, draft);
  const rows = width === 'sheet' ? onSheet(ordered, earthed) : rowsOf(ordered, width, earthed);
  return drawn(rows, draft);
}

/** Widths that are tried for a sheet, in units of the drawing. */
const TRIED = { from: 500, to: 3000, step: 100 } as const;

/** The rows in which everything is largest on a sheet that lies across. */
function onSheet(paths: readonly Path[], earthed: ReadonlySet<string>): Rows {
  const tried: Rows[] = [];
  for (let width = TRIED.from; width <= TRIED.to; width += TRIED.step)
    tried.push(rowsOf(paths, width, earthed));
  return tried.reduce((best, r) => (scaleOnSheet(r) > scaleOnSheet(best) ? r : best));
}

/** Place of a path whose wires have no numbers: after all others. */
const UNNUMBERED = 1e9;

/** Circuit by circuit, that of most paths first, in each rail by rail, at each rail its source first, then as the wires are numbered. */
function inOrder(paths: readonly Path[], { elements, wiresAt, panel }: Draft): Path[] {
  const byId = new Map(elements.map((e) => [e.id, e]));
  const circuit = circuitsOf(paths);
  const ranked = paths.map((path) => {
    const own = path.nodes.flatMap((n) => byId.get(n.id) ?? []);
    const numbers = own
      .flatMap((e) => e.ends.flatMap(({ landing }) => wiresAt.get(landing) ?? []))
      .map((id) => Number.parseInt(panel.wires[id]?.number ?? '', 10));
    return {
      path,
      circuit: circuit(path),
      rail: path.rails.find((r) => r.above)?.net ?? '',
      source: own.some((e) => e.shape === 'source') ? 0 : 1,
      first: Math.min(UNNUMBERED, ...numbers.filter((n) => !Number.isNaN(n))),
    };
  });
  type Ranked = (typeof ranked)[number];
  const begins = (same: (other: Ranked) => boolean): number =>
    Math.min(...ranked.filter(same).map((r) => r.first));
  const key = (r: Ranked): number[] => [
    -ranked.filter((o) => o.circuit === r.circuit).length,
    begins((o) => o.circuit === r.circuit),
    begins((o) => o.circuit === r.circuit && o.rail === r.rail),
    r.source,
    r.first,
  ];
  return ranked
    .map((r) => ({ path: r.path, key: key(r) }))
    .sort((x, y) => x.key.map((k, i) => k - y.key[i]).find((d) => d !== 0) ?? 0)
    .map(({ path }) => path);
}

/** Text beside an element: its tag, and what it is there for. */
function textsOf({ of, ends, shape }: Element, panel: Panel, words: CircuitWords): ElementText {
  if (shape === 'earth') return { tag: '', lines: [] };
  const tag = panel.devices[of]?.tag ?? (shape === 'link' ? of : '');
  const terminal = ends.map((e) => words[e.landing]).find((w) => w !== undefined && w !== '');
  return { tag, lines: linesOf(of === panel.device ? (terminal ?? '') : (words[of] ?? '')) };
}

const LINE = 12;

/** A text in two lines at most. */
function linesOf(text: string): string[] {
  if (text.length <= LINE) return text === '' ? [] : [text];
  const at = text.lastIndexOf(' ', LINE);
  const [first, rest] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
  return rest === ''
    ? [first]
    : [first, rest.length > LINE + 4 ? `${rest.slice(0, LINE + 3)}…` : rest];
}

/** Elements as boxes with their ends; earths at a rail have their place at its end. */
function nodesOf(draft: Draft): GraphNode[] {
  const { elements, nets, textOf, wiresAt, panel } = draft;
  const atRails = new Set(nets.flatMap((n) => n.earths));
  return elements.flatMap((e): GraphNode[] => {
    if (atRails.has(e.id)) return [];
    const { width, at } = placesOf(e, textOf(e), wiresAt, panel);
    const ports = e.ends.map(({ landing, side }, i) => ({
      id: portOf(e, landing),
      side,
      at: at[i],
    }));
    return [{ id: e.id, width, height: heightOf(e), free: 'nothing', ports }];
  });
}

/** What a diagram is drawn from. */
interface Draft {
  readonly elements: readonly Element[];
  readonly nets: readonly Net[];
  readonly wiresAt: Elements['wiresAt'];
  readonly joined: Elements['joined'];
  readonly textOf: (e: Element) => ElementText;
  readonly panel: Panel;
  readonly practice: Job['practice'];
}

function drawn(rows: Rows, draft: Draft): CircuitDiagram {
  const { elements, nets, wiresAt, panel } = draft;
  const wires = (landing: string): readonly string[] => wiresAt.get(landing) ?? [];
  const lines = rows.lines.map(({ net, port, points }): DrawnLine => {
    const at = landingOf(port);
    const own = wires(at);
    const open = own.some((id) => panel.open.includes(id)) ? { open: true as const } : {};
    return { id: port, wires: own, at, net, class: classOf(own, panel), points, ...open };
  });
  const bars = rows.bars.map(({ net, points }, i): DrawnLine => {
    const ends = (nets.find((n) => n.name === net)?.ends ?? []).map((e) => landingOf(e.port));
    const all = [...new Set(ends.flatMap(wires))];
    return { id: `bar ${i}`, wires: all, at: ends[0], net, class: classOf(all, panel), points };
  });
  const places = new Map<string, Place>(
    rows.nodes.map(({ id, x, y, width, height }) => [id, { x, y, width, height }]),
  );
  for (const { name, earths } of nets)
    for (const id of earths) {
      const bar = rows.bars.findLast((b) => b.net === name);
      if (bar) places.set(id, earthPlace(bar));
    }
  const shown = elements.flatMap((e) => {
    const place = places.get(e.id);
    return place ? [drawnElement(e, place, draft)] : [];
  });
  return {
    width: rows.width,
    height: rows.height,
    elements: shown.map((e) => e.element),
    lines: [...lines, ...bars],
    dots: rows.dots,
    labels: [...shown.flatMap((e) => e.labels), ...railLabels(rows, draft)],
  };
}

const railLabels = ({ bars }: Rows, draft: Draft): DrawnLabel[] =>
  bars.map(({ net, points: [[x, y]], above }) => ({
    text: railName(
      draft.nets.find((n) => n.name === net),
      draft,
    ),
    x,
    y: y + (above ? -3 : 11),
    anchor: 'start',
    kind: 'rail',
    of: net,
  }));

/** A rail is named after the terminal of the source that it comes from. */
function railName(net: Net | undefined, { elements, panel, joined }: Draft): string {
  const ends = (net?.ends ?? []).map((e) => ({ landing: landingOf(e.port), of: e.element }));
  const isSource = (id: string): boolean => elements.find((e) => e.id === id)?.shape === 'source';
  const isOwn = (landing: string): boolean => landingParts(landing).device === panel.device;
  const sources = ends.filter((e) => isSource(e.of));
  const at = (sources.find((e) => isOwn(e.landing)) ?? sources[0] ?? ends[0])?.landing ?? '';
  const also = joined.flatMap(({ link, a, b }) => {
    const other = at === a ? b : at === b ? a : undefined;
    return other === undefined ? [] : [` = ${landingParts(other).terminal} (${link})`];
  });
  return `${landingName(panel.devices, at)}${also.join('')}`;
}

type Place = Pick<LaidNode, 'x' | 'y' | 'width' | 'height'>;

/** An earth hangs on the right end of its bar. */
function earthPlace({ points }: Rows['bars'][number]): Place {
  const [x, y] = points[1];
  return { x, y, ...EARTH_BOX };
}

function drawnElement(
  e: Element,
  place: Place,
  draft: Draft,
): { element: DrawnElement; labels: DrawnLabel[] } {
  const { elements, wiresAt, panel, textOf, practice } = draft;
  const { x, y, height } = place;
  const text = textOf(e);
  const { at, earthsAt } = placesOf(e, text, wiresAt, panel);
  const by = e.of === panel.device ? 'coil' : parts[panel.devices[e.of]?.kind]?.symbol;
  const columns = e.ends.map(({ landing, side }, i) => ({ landing, side, x: at[i] }));
  const alternating = e.alternating === true;
  const { fixed, ways, sign } = strokesOf(
    { shape: e.shape, by, columns, ways: e.ways, height, alternating },
    practice,
  );
  const end = (landing: string, side: 'start' | 'end', column: number): WiredEnd => ({
    landing,
    name: landingParts(landing).terminal,
    side,
    x: x + column,
    y: side === 'start' ? y : y + height,
    wires: e.only ?? wiresAt.get(landing) ?? [],
  });
  const ends = columns.map((c) => end(c.landing, c.side, c.x));
  const earths = e.earths.map((landing, i) => end(landing, 'end', earthsAt[i]));
  const numbers = ({ landing }: WiredEnd): string => numbersAt(landing, wiresAt, panel, e.only);
  const signs = sign
    ? [
        {
          text: sign.text,
          x: x + sign.x,
          y: y + sign.y,
          anchor: 'middle',
          kind: 'sign',
          of: e.of,
        } as const,
      ]
    : [];
  return {
    element: {
      id: e.id,
      of: e.of,
      tag: text.tag,
      shape: e.shape,
      ...place,
      ends,
      earths,
      strokes: fixed + earthsAt.map((column) => earthStrokes(column, height)).join(''),
      ways,
      also: elements.filter((o) => o.of === e.of && o.id !== e.id).map((o) => o.id),
    },
    labels: [
      ...[...ends, ...earths].flatMap((w) => endLabels(w, numbers(w))),
      ...besideLabels(e.of, text, Math.max(...ends.map((w) => w.x)), y + height / 2),
      ...signs,
    ],
  };
}

/** A protective terminal in its element: a short line down to an earth. */
const earthStrokes = (x: number, height: number): string =>
  `M${x} ${height - 34}V${height - 26}${earthAt(x, height - 26)}`;

const classOf = (wires: readonly string[], panel: Panel): string =>
  wires.map((id) => panel.wires[id]?.class).find((c) => c !== 'pe') ?? '';
