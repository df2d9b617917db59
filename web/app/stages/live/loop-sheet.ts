import { Component, computed, inject, input, signal, viewChild } from '@angular/core';
import { v4 as uuid } from 'uuid';
import { formatNumber, parseQuantity, valueIn, type Dimension, moment } from '@tactron/core/units';
import type { SaidLoop } from '@tactron/core/said';
import { LineChart, type Series } from '../../controls/line-chart';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { InstrumentPick } from './instrument-pick';

type Column = 'signal' | 'hz' | 'rpm';

/** The sheet of an analogue reference: signal and frequency at nine places, up and down; judged as a line, and what puts it right. */
@Component({
  selector: 'tac-loop-sheet',
  imports: [InstrumentPick, LineChart],
  templateUrl: './loop-sheet.html',
  styleUrl: './loop-sheet.scss',
})
export class LoopSheet {
  readonly loop = input.required<SaidLoop>();
  private readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  private readonly withWhat = viewChild(InstrumentPick);
  private readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly problem = signal('');
  protected readonly clock = moment;
  protected readonly instrument = computed(() =>
    this.loop().unit === 'mA' ? 'ammeter' : 'voltmeter',
  );
  protected readonly last = computed(() => this.loop().sheets.at(-1));
  protected readonly series = computed<Series[]>(() => {
    const { rows, sheets } = this.loop();
    const up = rows.filter((r) => r.up);
    return [
      { name: 'wanted', points: up.map(({ signal: x, hz: y }) => ({ x, y })) },
      ...sheets.slice(-2).map((s, i, all): Series => ({
        name: all.length > 1 && i === 0 ? 'before' : 'read',
        points: s.points.map(({ signal: x, reads: y }) => ({ x, y })),
        shown: 'marks',
      })),
    ];
  });

  protected number(value: number | undefined, digits = 2): string {
    return value === undefined ? '' : formatNumber(value, digits, this.preferences.decimal());
  }

  protected text(row: number, column: Column): string {
    return this.typed()[`${row}.${column}`] ?? '';
  }

  protected type(row: number, column: Column, text: string): void {
    this.typed.update((all) => ({ ...all, [`${row}.${column}`]: text }));
  }

  /** What was typed in a field as a number in the unit of its column; null for what is none. */
  private read(row: number, column: Column, unit: string): number | undefined | null {
    const text = this.text(row, column).trim();
    if (text === '') return undefined;
    const dimension: Dimension = unit === 'V' ? 'voltage' : unit === 'mA' ? 'current' : 'number';
    const parsed = parseQuantity(text, dimension, column === 'signal' ? unit : '');
    return parsed.ok ? valueIn(parsed.quantity, column === 'signal' ? unit : '', dimension) : null;
  }

  /** Keeps the rows that are whole. What is half or no number is said, and nothing typed is lost. */
  protected keep(): void {
    const { rows, unit, input: at } = this.loop();
    this.problem.set('');
    const points = [];
    for (const [i, { pct }] of rows.entries()) {
      const signal = this.read(i, 'signal', unit);
      const [hz, rpm] = [this.read(i, 'hz', 'Hz'), this.read(i, 'rpm', 'rpm')];
      if (signal === null || hz === null || rpm === null)
        return this.problem.set(`Row ${i + 1}, ${pct} %: enter numbers.`);
      if ((signal === undefined) !== (hz === undefined))
        return this.problem.set(`Row ${i + 1}, ${pct} %: signal and frequency belong together.`);
      if (signal === undefined || hz === undefined) continue;
      points.push({
        signal,
        reads: hz,
        unit: 'Hz',
        askedPct: pct,
        ...(rpm === undefined ? {} : { rpm }),
      });
    }
    if (new Set(points.map((p) => p.signal)).size < 2)
      return this.problem.set('At least two rows with different signals make a line.');
    const instrument = this.withWhat()?.chosen();
    this.open.record('calibration', `loop.${uuid()}`, {
      version: 1,
      input: at,
      points,
      ...(instrument ? { instrument } : {}),
    });
    this.typed.set({});
  }
}
