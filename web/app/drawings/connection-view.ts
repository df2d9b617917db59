import { CdkDrag, type CdkDragEnd, type CdkDragMove } from '@angular/cdk/drag-drop';
import { Component, ElementRef, computed, input, output, signal, viewChild } from '@angular/core';
import type { ConnectionDrawing, DrawnLine } from '@tactron/core/drawings';
import { inReadingOrder, WireKeys } from './wire-keys';
import { Zoom } from './zoom';
import { ZoomBar } from './zoom-bar';

/** How far beside a terminal an end may be let go, px: half the width of a target for fingers. */
const REACH_PX = 22;

/** An end of a wire that was dragged to another terminal. */
export interface MovedEnd {
  readonly wire: string;
  readonly end: 'from' | 'to';
  readonly landing: string;
}

/** Devices with their terminals and a line for every wire; what is chosen lights its whole potential. */
@Component({
  selector: 'tac-connection-view',
  imports: [CdkDrag, WireKeys, Zoom, ZoomBar],
  templateUrl: './connection-view.html',
  styleUrls: ['./drawing.scss', './connection-view.scss'],
})
export class ConnectionView {
  readonly drawing = input.required<ConnectionDrawing>();
  readonly label = input('Connection drawing; the schedule lists the same wires');
  /** Chosen wire. */
  readonly wire = input('');
  /** Wire ends can be dragged. */
  readonly movable = input(false);
  /** What a terminal is there for, as its title. */
  readonly titles = input<Readonly<Record<string, string>>>({});
  readonly picked = output<string>();
  readonly moved = output<MovedEnd>();

  protected readonly order = computed(() => inReadingOrder(this.drawing().lines));
  private readonly net = computed(
    () => this.drawing().lines.find((l) => l.id === this.wire())?.net,
  );
  protected readonly lines = computed(() =>
    this.drawing().lines.map((line) => ({
      ...line,
      path: line.points.map((p) => p.join(',')).join(' '),
      chosen: line.id === this.wire(),
      lit: line.net === this.net(),
    })),
  );
  private readonly netOf = computed(
    () => new Map(this.drawing().lines.map((l) => [l.id, l.net] as const)),
  );
  protected readonly rows = computed(() =>
    this.drawing().boxes.flatMap((box) =>
      box.rows.map((row) => ({
        ...row,
        lit: row.wire !== undefined && this.netOf().get(row.wire.id) === this.net(),
      })),
    ),
  );

  protected ends(line: DrawnLine) {
    return [
      { end: 'from' as const, at: line.points[0] },
      { end: 'to' as const, at: line.points[line.points.length - 1] },
    ];
  }

  /** Terminal on which the dragged end would be landed now. */
  protected readonly target = signal('');
  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');

  /** The terminal under a point of the screen, or the nearest one within a finger's width. */
  private landingAt(event: MouseEvent | TouchEvent): string {
    // The places that the drag itself tells are in the units of the drawing.
    const { clientX: x, clientY: y } = 'changedTouches' in event ? event.changedTouches[0] : event;
    const hit = document
      .elementsFromPoint(x, y)
      .find((e) => e instanceof SVGElement && e.dataset['landing']);
    if (hit instanceof SVGElement) return hit.dataset['landing'] ?? '';
    const toScreen = this.svg().nativeElement.getScreenCTM();
    if (!toScreen) return '';
    let [best, least] = ['', REACH_PX];
    for (const row of this.rows()) {
      const at = new DOMPoint(row.x, row.y).matrixTransform(toScreen);
      const far = Math.hypot(at.x - x, at.y - y);
      if (far < least) [best, least] = [row.landing, far];
    }
    return best;
  }

  protected dragged({ event }: CdkDragMove): void {
    this.target.set(this.landingAt(event));
  }

  protected dropped({ source, event }: CdkDragEnd, wire: string, end: 'from' | 'to'): void {
    source.reset();
    this.target.set('');
    const landing = this.landingAt(event);
    if (landing) this.moved.emit({ wire, end, landing });
  }
}
