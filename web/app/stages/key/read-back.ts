import { Component, computed, inject, input, output, signal } from '@angular/core';
import type { Value } from '@tactron/core/catalogue';
import type { SaidRow } from '@tactron/core/said';
import { AttachmentRow } from '../../attachments/attachment-row';
import { OpenJob } from '../../job-state/open-job';

/** A row of the read-back: what is known of it, and whether somebody has read it. */
interface Line {
  readonly row: SaidRow;
  /** Value that is expected to stand there, in words. */
  readonly expected: string;
  readonly value: Value | undefined;
  readonly read: boolean;
  /** What protects is typed as it stands there, before the plan is shown. */
  readonly blind: boolean;
}

/**
 * The settings of the device read one by one, before anything is changed or at the end. Nothing counts as read that nobody has
 * read: each value is confirmed or typed for itself.
 */
@Component({
  selector: 'tac-read-back',
  imports: [AttachmentRow],
  templateUrl: './read-back.html',
  styleUrl: './read-back.scss',
})
export class ReadBack {
  private readonly open = inject(OpenJob);
  readonly which = input.required<'asFound' | 'asLeft'>();
  readonly kept = output();
  private readonly drafts = signal<Readonly<Record<string, Readonly<Record<string, Value>>>>>({});
  private readonly draft = computed(() => this.drafts()[this.which()] ?? {});
  protected readonly problem = signal<string | null>(null);

  /** Set by dials and switches: each is looked at, and has its own picture. */
  protected readonly byEye = computed(
    () => this.open.profile()?.keypad.style === 'dialsAndSwitches',
  );
  /** What a picture of a line, or of all of them, is taken for. */
  protected readonly subject = (code?: string): string =>
    `setting.${this.which()}${code === undefined ? '' : `.${code}`}`;

  private readonly all = computed(() =>
    (this.open.derived()?.rows ?? []).map((row): Line => {
      const found = this.which() === 'asFound';
      const before = found ? row.found : row.left;
      const value = this.draft()[row.code] ?? before;
      return {
        row,
        expected: found ? row.factoryText : row.plannedText,
        value,
        read: value !== undefined,
        blind: !found && row.protects && value === undefined,
      };
    }),
  );
  /** What the plan keys or rests on comes first; the rest may be read as well. */
  protected readonly groups = computed(() =>
    [
      { name: 'What the plan keys or rests on', lines: this.all().filter((l) => l.row.relied) },
      { name: 'All others', lines: this.all().filter((l) => !l.row.relied) },
    ].filter((g) => g.lines.length > 0),
  );
  protected readonly readCount = computed(() => this.all().filter((l) => l.read).length);
  protected readonly total = computed(() => this.all().length);
  protected readonly anyNew = computed(() => Object.keys(this.draft()).length > 0);

  /** It reads as expected: delivered so, or as planned. */
  protected readsSo({ row }: Line): void {
    this.take(row, this.which() === 'asFound' ? row.factory : row.planned);
  }

  protected type(row: SaidRow, text: string): void {
    if (text.trim() === '') return;
    const number = typeof row.factory === 'number';
    const value = number ? Number(text.trim().replace(',', '.')) : text.trim();
    if (typeof value === 'number' && !Number.isFinite(value))
      return this.problem.set(`${row.code}: "${text}" is no number.`);
    const { min, max } = row.limits;
    if (typeof value === 'number' && (value < (min ?? -Infinity) || value > (max ?? Infinity)))
      return this.problem.set(
        `${row.code} goes from ${min ?? 'any'} to ${max ?? 'any'}${row.unit ? ` ${row.unit}` : ''}: ${value} cannot stand there.`,
      );
    this.take(row, value);
  }

  private take(row: SaidRow, value: Value): void {
    this.problem.set(null);
    const mine = { ...this.draft(), [row.code]: value };
    this.drafts.update((drafts) => ({ ...drafts, [this.which()]: mine }));
  }

  /** The device was set back to the factory's values here: that is what it holds, without being read one by one. */
  protected wasReset(): void {
    this.open.record('snapshot', 'asFound', { which: 'asFound', source: 'factory', values: {} });
    this.kept.emit();
  }

  /** Keeps what was read, with what was read before; the rest stays unread. */
  protected keep(): void {
    const which = this.which();
    const values = Object.fromEntries(
      this.all().flatMap(({ row, value }) => (value === undefined ? [] : [[row.code, value]])),
    );
    this.open.record('snapshot', which, { which, source: 'typed', values });
    this.drafts.update((drafts) => ({ ...drafts, [which]: {} }));
    this.kept.emit();
  }
}
