import { Component, computed, input, output } from '@angular/core';
import type { CircuitDiagram, DrawnElement, DrawnLine } from '@tactron/core/drawings';
import { middleOf, type WireLook } from './wire-look';
import { inReadingOrder, WireKeys } from './wire-keys';
import { Zoom } from './zoom';
import { ZoomBar } from './zoom-bar';

/** How a circuit stands at a moment. */
export interface LiveState {
  /** Whether a way between two landings is closed; undefined where that is not known. */
  closed(way: string): boolean | undefined;
  /** Whether an element works. */
  works(element: DrawnElement): boolean;
  /** What stands at a landing: a voltage, the reference, or nothing that joins it. */
  at(landing: string): { readonly is: 'live' | 'nothing' | 'floating'; readonly text: string };
  broken(wire: string): boolean;
}

/** Distance from the corner of a line to a text beside it. */
const BESIDE = 4;

/** The circuit diagram; as it stands with nothing worked, or live. */
@Component({
  selector: 'tac-circuit-view',
  imports: [WireKeys, Zoom, ZoomBar],
  templateUrl: './circuit-view.html',
  styleUrls: ['./drawing.scss', './circuit-view.scss'],
})
export class CircuitView {
  readonly diagram = input.required<CircuitDiagram>();
  readonly label = input('Circuit diagram; the schedule lists the same wires');
  /** Chosen wire: its whole potential is lit. */
  readonly wire = input('');
  readonly live = input<LiveState>();
  /** Landings at which the leads of a meter lie. */
  readonly leads = input<readonly string[]>([]);
  /** Look of a line by the wires it stands for. */
  readonly look = input<(wires: readonly string[]) => WireLook | undefined>();
  readonly picked = output<string>();
  readonly landed = output<string>();

  protected readonly order = computed(() => inReadingOrder(this.diagram().lines));
  private readonly net = computed(() => {
    const wire = this.wire();
    return wire && this.diagram().lines.find((l) => l.wires.includes(wire))?.net;
  });

  private readonly places = computed(() => voltPlaces(this.diagram()));

  protected readonly lines = computed(() => {
    const live = this.live();
    const net = this.net();
    return this.diagram().lines.map((line) => {
      const volts = live?.at(line.at);
      const place = volts?.is === 'live' ? this.places().get(line.id) : undefined;
      return {
        ...line,
        path: line.points.map((p) => p.join(',')).join(' '),
        lit: line.net === net,
        is: volts?.is ?? '',
        volts: volts?.text ?? null,
        place,
        look: this.look()?.(line.wires),
        middle: middleOf(line.points),
        broken: live !== undefined && line.wires.some((w) => live.broken(w)),
      };
    });
  });

  protected readonly elements = computed(() => {
    const live = this.live();
    return this.diagram().elements.map((e) => ({
      ...e,
      move: `translate(${e.x} ${e.y})`,
      works: live?.works(e) === true,
      ways: e.ways
        .filter((w) => w.open !== w.closed)
        .map((w) => {
          const closed = live?.closed(`${w.a}|${w.b}`) ?? w.rest === 'closed';
          return { id: `${w.a}|${w.b}`, path: closed ? w.closed : w.open, closed };
        }),
    }));
  });

  protected readonly ends = computed(() => {
    const leads = this.leads();
    return this.diagram().elements.flatMap((e) =>
      e.ends.map((end) => ({ ...end, lead: leads.includes(end.landing) })),
    );
  });

  /** The next wire of a line: touched again, a line of several wires goes on to the next. */
  protected pick({ wires }: DrawnLine): void {
    if (wires.length === 0) return;
    this.picked.emit(wires[(wires.indexOf(this.wire()) + 1) % wires.length]);
  }
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly low: number;
}

const touch = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.low && b.top < a.low;

/** Room that the text of a voltage takes, in units of the drawing. */
const VOLTS = { width: 44, height: 10 } as const;

/** One place for the voltage of each potential: beside an upright piece of it, where nothing else stands. */
function voltPlaces({
  lines,
  labels,
}: CircuitDiagram): ReadonlyMap<string, { x: number; y: number }> {
  const taken: Box[] = labels.map(({ x, y, text, anchor }) => {
    const width = 6.5 * text.length;
    const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
    return { left, right: left + width, top: y - 10, low: y + 2 };
  });
  for (const line of lines)
    for (const { x, from, to } of uprights(line))
      taken.push({ left: x - 1, right: x + 1, top: from, low: to });
  const places = new Map<string, { x: number; y: number }>();
  const told = new Set<string>();
  for (const line of lines) {
    if (told.has(line.net)) continue;
    for (const { x, from, to } of uprights(line)) {
      const y = (from + to) / 2 + BESIDE;
      const box = {
        left: x + 2,
        right: x + 2 + VOLTS.width,
        top: y - VOLTS.height,
        low: y,
      };
      if (to - from < 14 || taken.some((t) => touch(t, box))) continue;
      taken.push(box);
      places.set(line.id, { x: x + BESIDE, y });
      told.add(line.net);
      break;
    }
  }
  return places;
}

/** Upright pieces of a line, the longest first. */
function uprights({ points }: DrawnLine): { x: number; from: number; to: number }[] {
  return points
    .slice(1)
    .flatMap(([x, y], i) => {
      const [px, py] = points[i];
      return px === x && py !== y ? [{ x, from: Math.min(py, y), to: Math.max(py, y) }] : [];
    })
    .sort((a, b) => b.to - b.from - a.to + a.from);
}
