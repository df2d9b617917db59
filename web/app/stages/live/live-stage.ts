import { Component, computed, effect, inject, signal } from '@angular/core';
import { verdictOfStep } from '@tactron/core/job';
import {
  dimensionOf,
  formatNumber,
  formatValue,
  parseQuantity,
  valueIn,
  type Dimension,
} from '@tactron/core/units';
import { AttachmentRow } from '../../attachments/attachment-row';
import type { SaidStep } from '../../compute/compute.types';
import { ShowMe } from '../../controls/show-me';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { DialChart } from './dial-chart';
import { moment } from '../../frame/moment';
import { readingText } from './reading-text';

const stateMarks: Readonly<Record<string, string>> = {
  open: 'to do',
  pass: 'pass',
  fail: 'fail',
  stale: 'stale',
  past: 'earlier procedure',
};

/** One live test at a time: what to do, what must come, the reading, the verdict at once. */
@Component({
  selector: 'tac-live-stage',
  imports: [DialChart, AttachmentRow, ShowMe],
  templateUrl: './live-stage.html',
  styleUrl: './live-stage.scss',
})
export class LiveStage {
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  protected readonly steps = computed(() => this.open.derived()?.steps ?? []);
  protected readonly past = computed(() => this.open.derived()?.past ?? []);
  protected readonly picked = signal<string | null>(null);
  protected readonly current = computed<SaidStep | undefined>(() => {
    const steps = this.steps();
    return (
      steps.find((s) => s.step.key === this.picked()) ??
      steps.find((s) => s.state !== 'pass') ??
      steps.at(-1)
    );
  });
  protected readonly text = signal('');
  protected readonly note = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly announced = signal('');
  protected readonly waiting = computed(() => {
    const current = this.current();
    if (!current) return [];
    return current.step.needs.flatMap((key) => {
      const needed = this.steps().find((s) => s.step.key === key);
      return needed && needed.state !== 'pass' ? [needed] : [];
    });
  });
  protected readonly passed = computed(() => this.steps().filter((s) => s.state === 'pass').length);

  protected readonly clock = moment;

  constructor() {
    let last = '';
    effect(() => {
      const key = this.current()?.step.key ?? '';
      if (key === last) return;
      last = key;
      this.text.set('');
      this.note.set('');
      this.problem.set(null);
      this.meanings.set([]);
    });
  }

  protected mark(state: string): string {
    return stateMarks[state];
  }

  protected short(step: SaidStep): string {
    return step.do.length > 64 ? `${step.do.slice(0, 62).replace(/\s\S*$/u, '')} …` : step.do;
  }

  protected range(step: SaidStep): string {
    const { expect } = step.step;
    if (expect?.kind !== 'range') return '';
    const mark = this.preferences.decimal();
    const digits = Math.abs(expect.hi - expect.lo) < 1 ? 2 : 1;
    return `${formatNumber(expect.lo, digits, mark)} … ${formatNumber(expect.hi, digits, mark)} ${expect.unit}`;
  }

  protected nominal(step: SaidStep): string {
    const { expect } = step.step;
    return expect?.kind === 'range'
      ? formatValue(expect.nominal, expect.unit, 4, this.preferences.decimal())
      : '';
  }

  protected unit(step: SaidStep): string {
    return step.step.expect?.kind === 'range' ? step.step.expect.unit : '';
  }

  protected from(step: SaidStep): string {
    const { from } = step.step;
    if (step.unmet) return 'required by what was wished';
    return from.kind === 'simulation'
      ? "simulated from this job's own wires and settings"
      : `${from.kind}: ${from.name}`;
  }

  protected answer(step: SaidStep, value: string): void {
    this.keep(step, value);
  }

  /** Numbers that what was typed may mean: a mark before three digits is asked about, never guessed towards the expected. */
  protected readonly meanings = signal<readonly { readonly v: number; readonly u: string }[]>([]);

  protected enter(step: SaidStep): void {
    const { expect } = step.step;
    if (expect?.kind !== 'range') return;
    const dimension: Dimension = dimensionOf(expect.unit) ?? 'number';
    const parsed = parseQuantity(this.text(), dimension, expect.unit);
    this.meanings.set([]);
    if (parsed.ok) return this.keep(step, round(valueIn(parsed.quantity, expect.unit, dimension)));
    if (parsed.why === 'ambiguous') {
      this.meanings.set(parsed.readings.map((v) => ({ v, u: expect.unit })));
      return this.problem.set('Which one is meant?');
    }
    this.problem.set(
      parsed.why === 'unknownUnit'
        ? `This unit does not fit: ${(parsed.units ?? []).filter(Boolean).join(', ')} can be typed here.`
        : 'Enter the reading as a number.',
    );
  }

  protected choose(step: SaidStep, { v }: { readonly v: number }): void {
    this.meanings.set([]);
    this.problem.set(null);
    this.keep(step, v);
  }

  protected meaning({ v, u }: { readonly v: number; readonly u: string }): string {
    return `${formatNumber(v, 6, this.preferences.decimal())} ${u}`;
  }

  protected reading(step: SaidStep): string {
    return step.reading
      ? readingText(step.reading.body, step.choices, this.preferences.decimal())
      : '';
  }

  /** Readings that stand beside the newest: who read what. */
  protected alsoRead(step: SaidStep): string {
    return step.beside
      .map(
        (r) => `${readingText(r.body, step.choices, this.preferences.decimal())}, ${r.author.name}`,
      )
      .join('; ');
  }

  /** Moment of the trial that the expected value comes from. */
  protected proof(step: SaidStep) {
    const { from } = step.step;
    return from.kind === 'simulation' ? from : undefined;
  }

  /** Keeps the reading with the whole step in it; an earlier one is superseded, not changed. */
  private keep(step: SaidStep, reading: number | string): void {
    const { expect } = step.step;
    if (!expect) return;
    const verdict = verdictOfStep(step.step, reading);
    const unit = expect.kind === 'range' ? { unit: expect.unit } : {};
    const note = this.note().trim();
    const typed = typeof reading === 'number' ? { typed: this.text().trim().slice(0, 60) } : {};
    const body = {
      version: 2,
      step: step.step,
      values: [{ value: reading, ...unit, ...typed }],
      verdict,
      ...(note ? { note } : {}),
    } as const;
    const before = step.reading ? [step.reading.id, ...step.beside.map((r) => r.id)] : [];
    this.open.record(
      'reading',
      step.step.key,
      { ...body, values: [...body.values] },
      before.length
        ? {
            supersedes: before.length === 1 ? before[0] : before,
            why: step.state === 'stale' ? 'tested again: the job changed' : 'tested again',
          }
        : {},
    );
    this.announced.set(`${verdict === 'pass' ? 'Pass' : 'Fail'}: ${step.must}`);
    this.picked.set(verdict === 'pass' ? null : step.step.key);
    this.text.set('');
    this.note.set('');
    this.problem.set(null);
  }
}

/** A converted number without the dust of the conversion. */
const round = (x: number): number => Number(x.toPrecision(12));
