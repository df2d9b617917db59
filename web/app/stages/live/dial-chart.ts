import { Component, DestroyRef, ElementRef, effect, inject, input, viewChild } from '@angular/core';
import type { Chart } from 'chart.js';
import type { SaidStep } from '../../compute/compute.types';
import { Preferences } from '../../frame/preferences';

/** Output frequency over the dial: the curve of this job's own simulation, and the readings on it. The list of tests is its table. */
@Component({
  selector: 'tac-dial-chart',
  template: `<figure>
    <figcaption>Dial to frequency: expected, and read</figcaption>
    <div><canvas #canvas role="img" [attr.aria-label]="label()"></canvas></div>
  </figure>`,
  styles: 'figure { margin: 0; } div { height: 190px; position: relative; } figcaption { font-size: 13px; color: var(--ink-soft); }',
})
export class DialChart {
  readonly steps = input.required<readonly SaidStep[]>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly preferences = inject(Preferences);
  private chart: Chart<'line', { x: number; y: number }[]> | undefined;

  constructor() {
    let alive = true;
    inject(DestroyRef).onDestroy(() => {
      alive = false;
      this.chart?.destroy();
    });
    effect(() => {
      const points = this.points();
      this.preferences.theme();
      void import('chart.js').then(({ Chart, LineController, LineElement, PointElement, LinearScale, Legend, Tooltip }) => {
        if (!alive) return;
        Chart.register(LineController, LineElement, PointElement, LinearScale, Legend, Tooltip);
        Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', sans-serif";
        this.chart?.destroy();
        this.chart = new Chart(this.canvas().nativeElement, { type: 'line', ...this.picture(points) });
      });
    });
  }

  protected label(): string {
    return this.points()
      .expected.map((p) => `${p.x} %: ${p.y.toFixed(2)} Hz`)
      .join(', ');
  }

  private points() {
    const expected: { x: number; y: number }[] = [];
    const read: { x: number; y: number }[] = [];
    for (const { step, reading } of this.steps()) {
      const pct = /^dial\.(\d+)\.hz$/u.exec(step.key)?.[1];
      if (pct === undefined || step.expect?.kind !== 'range') continue;
      expected.push({ x: Number(pct), y: step.expect.nominal });
      if (typeof reading?.body.reading === 'number') read.push({ x: Number(pct), y: reading.body.reading });
    }
    return { expected, read };
  }

  private picture({ expected, read }: ReturnType<DialChart['points']>) {
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const axis = (text: string) => ({
      type: 'linear' as const,
      title: { display: true, text, color: colour('--ink-soft') },
      ticks: { color: colour('--ink-soft') },
      grid: { color: colour('--line') },
    });
    return {
      data: {
        datasets: [
          { label: 'expected', data: expected, borderColor: colour('--accent-line'), backgroundColor: colour('--accent-line'), pointRadius: 2 },
          {
            label: 'read',
            data: read,
            borderColor: colour('--ink'),
            backgroundColor: colour('--ink'),
            pointStyle: 'crossRot' as const,
            pointRadius: 7,
            borderWidth: 2,
            showLine: false,
          },
        ],
      },
      options: {
        animation: false as const,
        maintainAspectRatio: false,
        scales: { x: { ...axis('dial, %'), min: 0, max: 100 }, y: { ...axis('Hz'), min: 0 } },
        plugins: { legend: { labels: { color: colour('--ink'), usePointStyle: true } } },
      },
    };
  }
}
