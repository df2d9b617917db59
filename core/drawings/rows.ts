import type { LaidNode, Point } from './graph.js';
import { isControl, type Path } from './paths.js';

/** A rail over the paths of one row. */
export interface Bar {
  readonly net: string;
  readonly above: boolean;
  readonly points: readonly Point[];
}

export interface Rows {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly LaidNode[];
  readonly lines: readonly {
    readonly net: string;
    readonly port: string;
    readonly points: readonly Point[];
  }[];
  readonly dots: Path['dots'];
  readonly bars: readonly Bar[];
}

/** Room between paths, between rows, between two bars that lie over each other, and at the rim. */
const APART = 14;
const BETWEEN = 34;
const LANE = 12;
const RIM = 14;
/** Room right of a bar for the earth at its end. */
const EARTH = 34;
/** A bar with an earth is at least so long, so that its name has room beside it. */
const EARTHED = 104;
/** Width that must be left beside the power circuit for rows of control. */
const LEAST_BESIDE = 420;

/**
 * Puts paths into rows between their rails, as wide as is asked for: paths that hang on no rail, the power, at the left, the
 * others beside it, or below where there is no room.
 *
 * @param width width that is aimed at, in units of the drawing
 * @param earthed nets at whose bars an earth hangs
 */
export function rowsOf(paths: readonly Path[], width: number, earthed: ReadonlySet<string>): Rows {
  const power = paths.filter((p) => !isControl(p));
  const control = paths.filter(isControl);
  const rows: Draft = { nodes: [], lines: [], dots: [], bars: [], right: 0, bottom: 0 };
  let y = RIM;
  for (const path of power) {
    put(path, RIM, y, rows);
    y += path.height + BETWEEN;
  }
  const beside = rows.right + 2 * APART;
  const isBeside = power.length > 0 && width - beside >= LEAST_BESIDE;
  const left = isBeside ? beside : RIM;
  let top = isBeside ? RIM : y;
  for (const row of split(control, width - left - RIM)) top = putRow(row, left, top, rows, earthed);
  return { ...rows, width: rows.right + RIM, height: rows.bottom + RIM };
}

interface Draft {
  readonly nodes: LaidNode[];
  readonly lines: Rows['lines'][number][];
  readonly dots: Rows['dots'][number][];
  readonly bars: Bar[];
  right: number;
  bottom: number;
}

function split(paths: readonly Path[], width: number): Path[][] {
  const rows: Path[][] = [];
  let used = Infinity;
  for (const path of paths) {
    if (used + path.width > width) {
      rows.push([]);
      used = 0;
    }
    rows[rows.length - 1].push(path);
    used += path.width + APART;
  }
  return rows;
}

/** Puts a row between its bars; returns where the next begins. */
function putRow(
  row: readonly Path[],
  left: number,
  top: number,
  rows: Draft,
  earthed: ReadonlySet<string>,
): number {
  let x = left;
  const placed = row.map((path) => {
    const at = x;
    x += path.width + APART;
    return { path, at };
  });
  const above = lanesOf(placed, true, earthed);
  const below = lanesOf(placed, false, earthed);
  const body = top + above.count * LANE;
  const height = Math.max(...row.map((p) => p.height));
  const floor = body + height + LANE;
  const yOf = (net: string, isAbove: boolean): number =>
    isAbove
      ? body - LANE * (1 + (above.lanes.get(net)?.lane ?? 0))
      : floor + LANE * (below.lanes.get(net)?.lane ?? 0);
  for (const { path, at } of placed) {
    put(path, at, body, rows);
    for (const { net, port, above: up, points } of path.rails) {
      const own = points.map(([px, py]): Point => [px + at, py + body]);
      const way: Point[] = [[own[0][0], yOf(net, up)], ...own.slice(1)];
      rows.lines.push({ net, port, points: way });
    }
  }
  for (const [isAbove, { lanes }] of [
    [true, above],
    [false, below],
  ] as const)
    for (const [net, { from, to }] of lanes) {
      const y = yOf(net, isAbove);
      rows.bars.push({
        net,
        above: isAbove,
        points: [
          [from, y],
          [to, y],
        ],
      });
      rows.right = Math.max(rows.right, to + EARTH);
    }
  const bottom = floor + LANE * below.count + LANE;
  rows.bottom = Math.max(rows.bottom, bottom);
  return bottom + BETWEEN;
}

/** Which bar lies how far from the paths, so that no two touch; how many lie over each other. */
function lanesOf(
  placed: readonly { path: Path; at: number }[],
  above: boolean,
  earthed: ReadonlySet<string>,
) {
  const spans = new Map<string, { from: number; to: number }>();
  for (const { path, at } of placed)
    for (const { net, above: up, points } of path.rails) {
      if (up !== above) continue;
      const x = points[0][0] + at;
      const known = spans.get(net);
      spans.set(net, { from: Math.min(x, known?.from ?? x), to: Math.max(x, known?.to ?? x) });
    }
  for (const [net, { from, to }] of spans)
    if (earthed.has(net)) spans.set(net, { from, to: Math.max(to, from + EARTHED) });
  const lanes = new Map<string, { from: number; to: number; lane: number }>();
  for (const [net, { from, to }] of [...spans].sort(
    ([, a], [, b]) => a.to - a.from - b.to + b.from,
  )) {
    let lane = 0;
    const touches = (): boolean =>
      [...lanes.values()].some(
        (l) => l.lane === lane && l.from <= to + EARTH && l.to + EARTH >= from,
      );
    while (touches()) lane++;
    lanes.set(net, { from, to, lane });
  }
  return { lanes, count: 1 + Math.max(0, ...[...lanes.values()].map((l) => l.lane)) };
}

function put(path: Path, x: number, y: number, rows: Draft): void {
  const by = ([px, py]: Point): Point => [px + x, py + y];
  rows.nodes.push(...path.nodes.map((n) => ({ ...n, x: n.x + x, y: n.y + y })));
  rows.lines.push(...path.lines.map((l) => ({ ...l, points: l.points.map(by) })));
  rows.dots.push(...path.dots.map((d) => ({ ...d, x: d.x + x, y: d.y + y })));
  rows.right = Math.max(rows.right, x + path.width);
  rows.bottom = Math.max(rows.bottom, y + path.height);
}
