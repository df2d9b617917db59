import { Component, computed, input } from '@angular/core';
import { readingTold } from '@tactron/core/job';
import type { SaidStep } from '@tactron/core/said';
import { LineChart, type Series } from '../../controls/line-chart';

/** Output frequency over the dial: the curve of this job's own simulation, and the readings on it. The list of tests is its table. */
@Component({
  selector: 'tac-dial-chart',
  imports: [LineChart],
  template: `<tac-line-chart
    title="Dial to frequency: expected, and read"
    x="dial, %"
    y="Hz"
    [xMax]="100"
    [series]="series()"
    [label]="label()"
  />`,
})
export class DialChart {
  readonly steps = input.required<readonly SaidStep[]>();
  protected readonly series = computed<Series[]>(() => {
    const expected: { x: number; y: number }[] = [];
    const read: { x: number; y: number }[] = [];
    for (const { step, reading } of this.steps()) {
      const pct = /^dial\.(\d+)\.hz$/u.exec(step.key)?.[1];
      if (pct === undefined || step.expect?.kind !== 'range') continue;
      expected.push({ x: Number(pct), y: step.expect.nominal });
      const seen = reading && readingTold(reading.body).values[0].value;
      if (typeof seen === 'number') read.push({ x: Number(pct), y: seen });
    }
    return [
      { name: 'expected', points: expected },
      { name: 'read', points: read, shown: 'marks' },
    ];
  });
  protected readonly label = computed(() =>
    this.series()[0]
      .points.map((p) => `${p.x} %: ${p.y.toFixed(2)} Hz`)
      .join(', '),
  );
}
