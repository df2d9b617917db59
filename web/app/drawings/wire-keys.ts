import { Directive, ElementRef, inject, input, output } from '@angular/core';
import type { DrawnLine } from '@tactron/core/drawings';

/** Which of a list the keys lead to, from the one chosen; the ends hold. */
const steps: Readonly<Record<string, (at: number, last: number) => number>> = {
  ArrowRight: (at, last) => Math.min(last, at + 1),
  ArrowDown: (at, last) => Math.min(last, at + 1),
  ArrowLeft: (at) => Math.max(0, at - 1),
  ArrowUp: (at) => Math.max(0, at - 1),
  Home: () => 0,
  End: (_at, last) => last,
};

/** Wires of lines from top to bottom and left to right, as a drawing is read; each once. */
export function inReadingOrder(lines: readonly DrawnLine[]): string[] {
  const top = ({ points }: DrawnLine): readonly [number, number] =>
    points.reduce((best, p) => (p[1] < best[1] ? p : best), points[0]) as [number, number];
  const placed = lines.filter((l) => l.points.length > 0).map((l) => ({ l, at: top(l) }));
  placed.sort((x, y) => x.at[1] - y.at[1] || x.at[0] - y.at[0]);
  return [...new Set(placed.flatMap(({ l }) => l.wires))];
}

/** Chooses the wires of a drawing by arrow keys, one after the other, and brings the chosen one into view. */
@Directive({
  selector: '[tacWireKeys]',
  host: { tabindex: '0', '(keydown)': 'key($event)' },
})
export class WireKeys {
  /** Wires in the order in which the keys lead through them. */
  readonly tacWireKeys = input.required<readonly string[]>();
  readonly chosenWire = input('');
  readonly picked = output<string>();
  private last = '';
  private readonly host = inject<ElementRef<SVGElement>>(ElementRef);

  protected key(event: KeyboardEvent): void {
    const step = steps[event.key];
    const wires = this.tacWireKeys();
    if (!step || wires.length === 0 || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    const wire = wires[step(wires.indexOf(this.chosenWire() || this.last), wires.length - 1)];
    this.last = wire;
    this.picked.emit(wire);
    this.host.nativeElement
      .querySelector(`[data-wire~="${CSS.escape(wire)}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }
}
