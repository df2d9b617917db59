import { Component, computed, inject, signal } from '@angular/core';
import type { Job } from '@tactron/core/job';
import type { Value } from '@tactron/core/catalogue';
import type { SaidLine } from '../../compute/compute.types';
import { Choice } from '../../controls/choice';
import { OpenJob } from '../../job-state/open-job';
import { ReadBack } from './read-back';

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

/** Holds that keep the motor from moving: they are passed anew in every session. */
const movesHold: ReadonlySet<string> = new Set(['openRunContacts', 'contactsStillOpen']);

/** The keying sheet: one line is current and big; the rest runs down with done marks; the three sets beside. */
@Component({
  selector: 'tac-key-stage',
  imports: [Choice, ReadBack],
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
  /** Moment at which this session of keying began: leaving the sheet ends it. */
  private readonly since = new Date().toISOString();
  /** Lines with their holds: while anything is to be keyed, a hold counts only if it was passed in this session. */
  protected readonly lines = computed<readonly SaidLine[]>(() => {
    const lines = this.open.derived()?.lines ?? [];
    if (!lines.some((l) => l.code !== undefined && !l.done)) return lines;
    const passed = new Set(
      this.open
        .evidence()
        .flatMap((e) => (e.kind === 'keyed' && e.atClient >= this.since ? [e.subject] : [])),
    );
    return lines.map((l) =>
      l.hold !== undefined && movesHold.has(l.hold) && !passed.has(l.key)
        ? { ...l, done: false }
        : l,
    );
  });
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
