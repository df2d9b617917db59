import { CdkDrag, type CdkDragEnd } from '@angular/cdk/drag-drop';
import { Component, computed, input, output } from '@angular/core';
import type { ConnectionDrawing, DrawnLine } from '@tactron/core/drawings';
import { Zoom } from './zoom';
import { ZoomBar } from './zoom-bar';

/** An end of a wire that was dragged to another terminal. */
export interface MovedEnd {
  readonly wire: string;
  readonly end: 'from' | 'to';
  readonly landing: string;
}

/** Devices with their terminals and a line for every wire; what is chosen lights its whole potential. */
@Component({
  selector: 'tac-connection-view',
  imports: [CdkDrag, Zoom, ZoomBar],
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

  protected dropped(event: CdkDragEnd, wire: string, end: 'from' | 'to'): void {
    event.source.reset();
    const at = 'changedTouches' in event.event ? event.event.changedTouches[0] : event.event;
    const target = document
      .elementsFromPoint(at.clientX, at.clientY)
      .find((e) => e instanceof SVGElement && e.dataset['landing']);
    const landing = target instanceof SVGElement ? target.dataset['landing'] : undefined;
    if (landing) this.moved.emit({ wire, end, landing });
  }
}
