import { Component, DestroyRef, ElementRef, effect, inject, input, viewChild } from '@angular/core';
import type { Chart, ChartConfiguration, ChartDataset } from 'chart.js';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../frame/preferences';

/** A curve, or points read. */
export interface Series {
  readonly name: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** Marks for readings, dashes for what is compared with. */
  readonly shown?: 'line' | 'dashes' | 'marks';
  /** The scale on the right. */
  readonly right?: boolean;
  /** Place in the list of curves whose colour it has: what is compared has one. */
  readonly like?: number;
}

/** Curves over one quantity. Its caller gives the same numbers as a table or list. */
@Component({
  selector: 'tac-line-chart',
  template: `<figure>
    <figcaption>{{ title() }}</figcaption>
    <div><canvas #canvas role="img" [attr.aria-label]="label() || title()"></canvas></div>
  </figure>`,
  styles:
    'figure { margin: 0; min-width: 0; } div { height: 200px; position: relative; } figcaption { font-size: 13px; color: var(--ink-soft); }',
})
export class LineChart {
  readonly title = input.required<string>();
  readonly x = input.required<string>();
  readonly y = input.required<string>();
  readonly rightY = input<string>();
  readonly xMax = input<number>();
  readonly series = input.required<readonly Series[]>();
  readonly label = input('');
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
      const series = this.series();
      this.preferences.theme();
      this.preferences.decimal();
      void import('chart.js').then(
        ({ Chart, LineController, LineElement, PointElement, LinearScale, Legend, Tooltip }) => {
          if (!alive) return;
          Chart.register(LineController, LineElement, PointElement, LinearScale, Legend, Tooltip);
          Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', sans-serif";
          this.chart?.destroy();
          this.chart = new Chart<'line', { x: number; y: number }[]>(this.canvas().nativeElement, {
            type: 'line',
            ...this.picture(series),
          });
        },
      );
    });
  }

  private picture(
    series: readonly Series[],
  ): Pick<ChartConfiguration<'line', { x: number; y: number }[]>, 'data' | 'options'> {
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const axis = (text: string) => ({
      type: 'linear' as const,
      title: { display: true, text, color: colour('--ink-soft') },
      ticks: {
        color: colour('--ink-soft'),
        maxTicksLimit: 8,
        callback: (value: number | string) =>
          formatNumber(Number(value), 6, this.preferences.decimal()),
      },
      grid: { color: colour('--line') },
    });
    const colours = [colour('--accent-line'), colour('--ink'), colour('--good')];
    const datasets = series.map((s, i): ChartDataset<'line', { x: number; y: number }[]> => {
      const marks = s.shown === 'marks';
      return {
        label: s.name,
        data: s.points.map(({ x, y }) => ({ x, y })),
        borderColor: colours[(s.like ?? i) % 3],
        backgroundColor: colours[(s.like ?? i) % 3],
        borderWidth: 2,
        borderDash: s.shown === 'dashes' ? [6, 4] : undefined,
        pointRadius: marks ? 7 : 0,
        pointStyle: marks ? ('crossRot' as const) : ('line' as const),
        showLine: !marks,
        yAxisID: s.right ? 'right' : 'y',
      };
    });
    const right = this.rightY();
    return {
      data: { datasets },
      options: {
        animation: false as const,
        maintainAspectRatio: false,
        scales: {
          x: { ...axis(this.x()), min: 0, max: this.xMax() },
          y: { ...axis(this.y()), min: 0 },
          ...(right
            ? {
                right: {
                  ...axis(right),
                  min: 0,
                  position: 'right' as const,
                  grid: { display: false },
                },
              }
            : {}),
        },
        plugins: { legend: { labels: { color: colour('--ink'), usePointStyle: true } } },
      },
    };
  }
}
