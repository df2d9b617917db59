import { Component, computed, inject, input, output, signal } from '@angular/core';
import type { SaidRow } from '../../compute/sweep.worker';
import { CircuitView } from '../../drawings/circuit-view';
import { Drawings } from '../../drawings/drawings';
import type { WireLook } from '../../drawings/wire-look';

/** Classes from harmless to gravest: pattern and width of the line, and its colour, and a letter on the wire. */
const classes: Readonly<
  Record<string, { letter: string; dash: string; colour: string; width: number }>
> = {
  noEffect: { letter: '', dash: '1 5', colour: 'var(--line-strong)', width: 1.5 },
  failsSafe: { letter: '', dash: '', colour: 'var(--good)', width: 2 },
  losesFunction: { letter: 'f', dash: '12 4', colour: 'var(--ink-soft)', width: 2 },
  hidden: { letter: 'h', dash: '2 4', colour: 'var(--warn)', width: 3 },
  destroys: { letter: 'd', dash: '2 2', colour: 'var(--warn)', width: 4 },
  wrongDirectionOrSpeed: { letter: 'w', dash: '9 3 2 3', colour: 'var(--warn)', width: 3 },
  losesStop: { letter: 'S', dash: '14 3 3 3 3 3', colour: 'var(--bad)', width: 4 },
  startsByItself: { letter: 'A', dash: '5 3', colour: 'var(--bad)', width: 4 },
};
const order = Object.keys(classes);

/** Width of the diagram in its panel, in its units. */
const WIDTH = 640;

/** The control circuit with every wire in the class of its worst fault: by pattern, letter and word, not by colour alone. */
@Component({
  selector: 'tac-sweep-drawing',
  imports: [CircuitView],
  template: `
    @if (drawing(); as d) {
      <tac-circuit-view
        [diagram]="d"
        [look]="look()"
        label="Wires by the class of their worst fault; the table lists the same"
        (picked)="picked.emit($event)"
      >
        <p class="legend small">
          @for (l of legend(); track l.worst) {
            <span>
              <svg viewBox="0 0 56 10" aria-hidden="true">
                <line x1="0" x2="56" y1="5" y2="5" [style]="l.style" />
              </svg>
              {{ l.letter ? l.letter + ': ' : '' }}{{ l.text }}
            </span>
          }
        </p>
      </tac-circuit-view>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .legend {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
    }
    .legend svg {
      width: 56px;
      height: 10px;
    }
  `,
})
export class SweepDrawing {
  readonly rows = input.required<readonly SaidRow[]>();
  readonly picked = output<string>();
  protected readonly drawing = inject(Drawings).circuit(
    'built',
    WIDTH,
    signal('control' as const).asReadonly(),
  ).drawing;

  /** Worst row of every wire. */
  private readonly worst = computed(() => {
    const worst = new Map<string, SaidRow>();
    for (const row of this.rows()) {
      if (!row.wire) continue;
      const known = worst.get(row.wire);
      if (!known || order.indexOf(row.worst) > order.indexOf(known.worst)) worst.set(row.wire, row);
    }
    return worst;
  });

  /** A line looks as the gravest of its wires. */
  protected readonly look = computed(() => {
    const worst = this.worst();
    return (wires: readonly string[]): WireLook => {
      const rows = wires.flatMap((id) => worst.get(id) ?? []);
      const row = rows.sort((x, y) => order.indexOf(y.worst) - order.indexOf(x.worst)).at(0);
      // What was not swept has no class, and looks like none.
      if (!row) return { style: '', title: 'not swept', mark: '' };
      const look = classes[row.worst];
      const title = `${row.what}: ${row.worstText} (${row.kind})`;
      return { style: styleOf(look), title, mark: look.letter };
    };
  });

  protected readonly legend = computed(() => {
    const seen = new Map([...this.worst().values()].map((r) => [r.worst, r.worstText]));
    return order
      .filter((c) => seen.has(c as SaidRow['worst']))
      .map((worst) => ({
        worst,
        text: seen.get(worst as SaidRow['worst']),
        letter: classes[worst].letter,
        style: styleOf(classes[worst]),
      }));
  });
}

const styleOf = ({ dash, colour, width }: (typeof classes)[string]): string =>
  `stroke:${colour};stroke-width:${width};${dash ? `stroke-dasharray:${dash}` : ''}`;
