import { Component, computed, inject, signal } from '@angular/core';
import type { Job } from '@tactron/core/job';
import type { Value } from '@tactron/core/catalogue';
import type { SaidLine, SaidRow } from '../../compute/compute.types';
import { Choice } from '../../controls/choice';
import { Typed } from '../../controls/typed';
import { OpenJob } from '../../job-state/open-job';

const partNames: Readonly<Record<string, string>> = {
  makeSafe: 'So that nothing can move',
  motor: 'Motor plate',
  limits: 'Limits and ramps',
  inputs: 'Input tasks',
  reference: 'Reference',
  outputs: 'Outputs',
  protection: 'Protection and restart',
  handOver: 'Command to the terminals',
  readBack: 'Read back',
};

/** The keying sheet: one line is current and big; the rest runs down with done marks; the three sets beside. */
@Component({
  selector: 'tac-key-stage',
  imports: [Choice, Typed],
  templateUrl: './key-stage.html',
  styleUrl: './key-stage.scss',
})
export class KeyStage {
  protected readonly open = inject(OpenJob);
  protected readonly view = signal<'sheet' | 'found' | 'left'>('sheet');
  protected readonly views = [
    { value: 'sheet', name: 'Keying sheet' },
    { value: 'found', name: 'As found' },
    { value: 'left', name: 'As left' },
  ];
  protected readonly lines = computed(() => this.open.derived()?.lines ?? []);
  protected readonly picked = signal<string | null>(null);
  protected readonly current = computed<SaidLine | undefined>(
    () => this.lines().find((l) => l.key === this.picked()) ?? this.lines().find((l) => !l.done),
  );
  protected readonly doneCount = computed(() => this.lines().filter((l) => l.done).length);
  protected readonly groups = computed(() => {
    const groups: { part: string; title: string; lines: SaidLine[] }[] = [];
    for (const line of this.lines()) {
      if (groups.at(-1)?.part !== line.part)
        groups.push({ part: line.part, title: partNames[line.part], lines: [] });
      groups.at(-1)?.lines.push(line);
    }
    return groups;
  });
  protected readonly rows = computed(() => this.open.derived()?.rows ?? []);
  protected readonly draft = signal<Readonly<Record<string, Value>>>({});
  protected readonly overriding = signal<string | null>(null);
  protected readonly overrideWhy = signal('');
  protected readonly overrideValue = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly hasLeft = computed(() => this.rows().some((row) => row.left !== undefined));

  protected done(line: SaidLine): void {
    this.open.record('keyed', line.key, {
      code: line.key,
      value: line.code === undefined ? true : (line.to as Value),
    });
    this.picked.set(null);
  }

  protected undone(line: SaidLine): void {
    this.open.record('keyed', line.key, {
      code: line.key,
      value: line.code === undefined ? true : (line.to as Value),
      undone: true,
    });
    this.picked.set(null);
  }

  protected presses(line: SaidLine): string {
    return line.presses
      .map(
        (p) =>
          `${p.key}${p.times > 1 ? ` × ${p.times}` : ''}${p.holdS ? ` (hold ${p.holdS} s)` : ''}`,
      )
      .join('   ');
  }

  /** Value standing in the table being filled in: what was typed, otherwise what is known. */
  protected value(row: SaidRow): Value {
    const known = this.view() === 'found' ? (row.found ?? row.factory) : (row.left ?? row.planned);
    return this.draft()[row.code] ?? known;
  }

  protected type(row: SaidRow, text: string): void {
    const number = typeof row.factory === 'number';
    const value = number ? Number(text.replace(',', '.')) : text;
    if (number && !Number.isFinite(value))
      return this.problem.set(`${row.code}: "${text}" is no number.`);
    this.problem.set(null);
    this.draft.set({ ...this.draft(), [row.code]: value });
  }

  protected keep(): void {
    const which = this.view() === 'found' ? 'asFound' : 'asLeft';
    const values = Object.fromEntries(this.rows().map((row) => [row.code, this.value(row)]));
    this.open.record('snapshot', which, { which, source: 'typed', values });
    this.draft.set({});
    this.view.set('sheet');
  }

  protected startOverride(line: SaidLine): void {
    this.overriding.set(line.code ?? null);
    this.overrideValue.set(String(line.to ?? ''));
  }

  protected override(): void {
    const code = this.overriding();
    const row = this.rows().find((r) => r.code === code);
    const value =
      typeof row?.factory === 'number'
        ? Number(this.overrideValue().replace(',', '.'))
        : this.overrideValue();
    if (
      !code ||
      !this.overrideWhy().trim() ||
      (typeof value === 'number' && !Number.isFinite(value))
    )
      return this.problem.set('A value and a reason are needed.');
    this.problem.set(null);
    this.open.edit(
      `setting ${code}`,
      (draft: Job) =>
        void (draft.decisions.settings[code] = { value, why: this.overrideWhy().trim() }),
    );
    this.overriding.set(null);
    this.overrideWhy.set('');
  }

  protected clearOverride(code: string): void {
    this.open.edit(
      `setting ${code} back to the plan`,
      (draft: Job) => void delete draft.decisions.settings[code],
    );
  }

  protected own(code: string | undefined): boolean {
    return code !== undefined && this.open.job()?.decisions.settings[code] !== undefined;
  }
}
