import { Component, computed, inject, input, output } from '@angular/core';
import type { SaidRow } from '../../compute/sweep.worker';
import { OpenJob } from '../../job-state/open-job';

/** Classes from harmless to gravest: pattern of the line, its colour, and a letter on the wire. */
const looks: Readonly<
  Record<string, { dash: string; colour: string; letter: string; width: number }>
> = {
  noEffect: { dash: '1 5', colour: 'var(--line-strong)', letter: '', width: 1.5 },
  failsSafe: { dash: '', colour: 'var(--good)', letter: '', width: 2 },
  losesFunction: { dash: '12 4', colour: 'var(--ink-soft)', letter: 'f', width: 2 },
  hidden: { dash: '2 4', colour: 'var(--warn)', letter: 'h', width: 3 },
  destroys: { dash: '2 2', colour: 'var(--warn)', letter: 'd', width: 4 },
  wrongDirectionOrSpeed: { dash: '9 3 2 3', colour: 'var(--warn)', letter: 'w', width: 3 },
  losesStop: { dash: '14 3 3 3 3 3', colour: 'var(--bad)', letter: 'S', width: 4 },
  startsByItself: { dash: '5 3', colour: 'var(--bad)', letter: 'A', width: 4 },
};
const order = Object.keys(looks);

/** The control drawing with every wire in the class of its worst fault: by pattern, letter and word, not by colour alone. */
@Component({
  selector: 'tac-sweep-drawing',
  template: `
    @if (drawing(); as d) {
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
      <div class="scroll-x">
        <svg
          class="drawing"
          [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height"
          [style.min-width.px]="d.width * 0.72"
          role="img"
          aria-label="Wires by the class of their worst fault; the table lists the same"
        >
          @for (device of d.devices; track device.id) {
            <rect
              [attr.x]="device.x"
              [attr.y]="device.y"
              [attr.width]="device.width"
              [attr.height]="device.height"
              rx="5"
            />
            <text
              class="tag"
              [attr.x]="device.x + 9"
              [attr.y]="device.main ? device.y + device.height - 8 : device.y + 19"
            >
              {{ device.tag }}
            </text>
            @for (t of device.terminals; track t.landing) {
              <circle [attr.cx]="t.x" [attr.cy]="t.y" r="5" />
              <text class="name" [attr.x]="t.x" [attr.y]="device.main ? t.y + 24 : t.y - 11">
                {{ t.name }}
              </text>
            }
          }
          @for (w of wires(); track w.id) {
            <g (click)="picked.emit(w.id)">
              <title>wire {{ w.number }}: {{ w.text }}</title>
              <polyline class="reach" [attr.points]="w.points" />
              <polyline [attr.points]="w.points" [style]="w.style" />
              <text class="number" [attr.x]="w.x" [attr.y]="w.y - 4">
                {{ w.number }}{{ w.letter ? ' ' + w.letter : '' }}
              </text>
            </g>
          }
        </svg>
      </div>
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
    rect {
      fill: var(--paper);
      stroke: var(--line-strong);
    }
    circle {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    text {
      fill: var(--ink);
      font-size: 12px;
    }
    .tag {
      font-weight: 700;
    }
    .name,
    .number {
      text-anchor: middle;
    }
    .number {
      font-weight: 700;
      paint-order: stroke;
      stroke: var(--sheet);
      stroke-width: 4px;
    }
    polyline {
      fill: none;
    }
    .reach {
      stroke: transparent;
      stroke-width: 14px;
    }
    g {
      cursor: pointer;
    }
  `,
})
export class SweepDrawing {
  readonly rows = input.required<readonly SaidRow[]>();
  readonly picked = output<string>();
  private readonly open = inject(OpenJob);
  protected readonly drawing = computed(() => this.open.derived()?.control ?? null);

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

  protected readonly wires = computed(() =>
    (this.drawing()?.wires ?? []).map((w) => {
      const row = this.worst().get(w.id);
      const look = looks[row?.worst ?? 'noEffect'];
      return {
        id: w.id,
        number: w.number,
        points: w.points.map((p) => p.join(',')).join(' '),
        x: w.label[0],
        y: w.label[1],
        letter: look.letter,
        style: styleOf(look),
        text: row ? `${row.worstText} (${row.kind})` : 'not swept',
      };
    }),
  );

  protected readonly legend = computed(() => {
    const seen = new Map([...this.worst().values()].map((r) => [r.worst, r.worstText]));
    return order
      .filter((c) => seen.has(c as SaidRow['worst']))
      .map((worst) => ({
        worst,
        text: seen.get(worst as SaidRow['worst']),
        letter: looks[worst].letter,
        style: styleOf(looks[worst]),
      }));
  });
}

const styleOf = ({ dash, colour, width }: (typeof looks)[string]): string =>
  `stroke:${colour};stroke-width:${width};${dash ? `stroke-dasharray:${dash}` : ''}`;
