import { Component, computed, input } from '@angular/core';
import type { SaidStrip } from '@tactron/core/said';
import { placeOf, stripPath } from './strip-path';

const WIDTH = 400;
const laneNames: Readonly<Record<string, string>> = {
  supply: 'Supply',
  output: 'Output',
  speed: 'Speed',
  current: 'Current',
  torque: 'Torque',
};

/** Lanes that show a quantity, not whether something is on. */
const tallLanes: readonly string[] = ['output', 'speed', 'current', 'torque'];

/** What a job does in the show trial: supply, controls and output under each other, by the numbers of its acts. */
@Component({
  selector: 'tac-timing-strip',
  template: `
    <div class="strip" role="img" [attr.aria-label]="spoken()">
      <div class="numbers" aria-hidden="true">
        @for (m of marks(); track $index) {
          <span [style.left.%]="m.left" [style.width.%]="m.width">{{ $index + 1 }}</span>
        }
      </div>
      @for (lane of lanes(); track lane.id) {
        <div class="lane" [class.tall]="lane.tall">
          <span>{{ lane.name }}</span>
          <svg
            [attr.viewBox]="'0 0 ' + width + ' ' + lane.height"
            preserveAspectRatio="none"
            aria-hidden="true"
          >
            @for (m of marks(); track $index) {
              <line [attr.x1]="m.x" [attr.x2]="m.x" y1="0" [attr.y2]="lane.height" />
            }
            @if (lane.zero !== null) {
              <line
                class="zero"
                x1="0"
                [attr.x2]="width"
                [attr.y1]="lane.zero"
                [attr.y2]="lane.zero"
              />
            }
            <path [attr.d]="lane.path" />
          </svg>
        </div>
      }
    </div>
    <p class="legend small">
      @for (m of marks(); track $index) {
        <span
          ><b class="mono">{{ $index + 1 }}</b> {{ m.text }}</span
        >
      }
    </p>
  `,
  styleUrl: './timing-strip.scss',
})
export class TimingStrip {
  readonly strip = input.required<SaidStrip>();
  protected readonly width = WIDTH;

  protected readonly marks = computed(() => {
    const strip = this.strip();
    const edges = [...strip.marks.map((m) => placeOf(m.atMs, strip.marks, strip.endMs)), 1];
    return strip.marks.map((m, i) => ({
      text: m.text,
      left: edges[i] * 100,
      width: (edges[i + 1] - edges[i]) * 100,
      x: edges[i] * WIDTH,
    }));
  });

  protected readonly lanes = computed(() => {
    const strip = this.strip();
    // Where the shaft goes on turning by itself, its speed is shown and not what drives it.
    const coasts = strip.lines.some((line) => line.kind === 'speed');
    const lines = strip.lines.filter((line) => !coasts || line.kind !== 'output');
    return lines.map((line) => {
      const tall = tallLanes.includes(line.kind);
      const height = tall ? 56 : 20;
      const low = tall && line.points.some(([, v]) => v < -0.01) ? -line.top : 0;
      return {
        id: line.id,
        tall,
        height,
        zero: low < 0 ? height / 2 : null,
        name: laneNames[line.kind] ?? line.tag,
        path: stripPath(line, strip.marks, strip.endMs, WIDTH, height, low),
      };
    });
  });

  /** The strip for those who do not see it: at each mark, whether the motor turns when the part is over. */
  protected readonly spoken = computed(() => {
    const strip = this.strip();
    const output = strip.lines.find((l) => l.kind === 'output');
    if (!output) return '';
    return strip.marks
      .map((m, i) => {
        const end = (strip.marks[i + 1]?.atMs ?? strip.endMs) - 20;
        const hz = output.points.findLast(([t]) => t <= end)?.[1] ?? 0;
        return `${m.text}: ${hz > 0.05 ? 'runs forward' : hz < -0.05 ? 'runs in reverse' : 'stands still'}`;
      })
      .join('; ');
  });
}
