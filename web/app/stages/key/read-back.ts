import { Component, computed, inject, input, output, signal } from '@angular/core';
import type { Value } from '@tactron/core/catalogue';
import type { SaidRow } from '@tactron/core/said';
import { attachmentsOf } from '@tactron/core/job';
import { AttachmentRow } from '../../attachments/attachment-row';
import { OpenJob } from '../../job-state/open-job';

/** Pages of a display, by the group of their settings. */
const pageNames: Readonly<Record<string, string>> = {
  first: 'first settings',
  motor: 'motor',
  limits: 'limits',
  ramps: 'ramps',
  inputs: 'inputs',
  reference: 'reference',
  outputs: 'outputs',
  protection: 'protection',
  restart: 'restart',
  command: 'command',
};

/** A row of the read-back: what is known of it, and whether somebody has read it. */
interface Line {
  readonly row: SaidRow;
  /** Value that is expected to stand there, in words. */
  readonly expected: string;
  readonly value: Value | undefined;
  readonly read: boolean;
  /** What protects is typed as it stands there, before the plan is shown. */
  readonly blind: boolean;
  /** It was taken from a picture of its page. */
  readonly pictured: boolean;
}

/** A picture of its page may stand for it: not what protects, which is typed as it stands there. */
const onPicture = (l: Line): boolean => !l.read && !l.blind;

/** Lines that are read together: what is relied on one by one, the rest page by page. */
interface Group {
  readonly name: string;
  readonly lines: readonly Line[];
  /** Page of the display that a picture may stand for; absent where each value is read for itself. */
  readonly page?: string;
  readonly unread: number;
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
  /** Picture that a value was taken from, by the code of its setting. */
  private readonly pictures = signal<Readonly<Record<string, string>>>({});

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
        blind: !found && (row.protects || row.measured) && value === undefined,
        pictured: this.pictures()[row.code] !== undefined,
      };
    }),
  );
  /** What the plan keys or rests on comes first; the rest may be read as well, a page of the display by one picture. */
  protected readonly groups = computed((): readonly Group[] => {
    const group = (name: string, lines: readonly Line[], page?: string): Group => ({
      name,
      lines,
      unread: lines.filter(onPicture).length,
      ...(page === undefined || this.byEye() ? {} : { page }),
    });
    const panel = this.all().filter((l) => l.row.panel);
    const others = this.all().filter((l) => !l.row.relied && !l.row.panel);
    const pages = [...new Set(others.map((l) => l.row.group))];
    return [
      group(
        'What the plan keys or rests on',
        this.all().filter((l) => l.row.relied && !l.row.panel),
      ),
      group('Set elsewhere in the panel', panel),
      ...pages.map((page) =>
        group(
          `Others: ${pageNames[page] ?? page}`,
          others.filter((l) => l.row.group === page),
          page,
        ),
      ),
    ].filter((g) => g.lines.length > 0);
  });
  private readonly pictureOf = (page: string): string | undefined =>
    attachmentsOf(this.open.evidence(), this.subject(`page.${page}`)).at(-1)?.body.sha256;
  protected readonly readCount = computed(() => this.all().filter((l) => l.read).length);
  protected readonly total = computed(() => this.all().length);
  protected readonly anyNew = computed(() => Object.keys(this.draft()).length > 0);

  /** Nothing is planned yet: what is expected is as delivered. */
  protected readonly delivered = computed(
    () => this.which() === 'asFound' || this.open.job()?.adopted === undefined,
  );

  /** A picture of a page shows every value of it that is not read yet as it is expected. */
  protected standsOnPicture({ page, lines, name }: Group): void {
    const picture = page === undefined ? undefined : this.pictureOf(page);
    if (picture === undefined)
      return this.problem.set(`${name}: take a picture of the page on the display first.`);
    const unread = lines.filter(onPicture);
    for (const line of unread) this.readsSo(line);
    const taken = Object.fromEntries(unread.map(({ row }) => [row.code, picture]));
    this.pictures.update((all) => ({ ...all, ...taken }));
  }

  /** What it has to stand at is known beforehand: not what the device measures, or the process decides. */
  protected readsSoKnown({ row }: Line): boolean {
    const left = this.which() === 'asLeft';
    if (row.measured) return !left;
    return row.panel === undefined || (left && row.panel.planned !== undefined);
  }

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
    // Read for itself now, whatever a picture showed.
    this.pictures.update(({ [row.code]: _before, ...rest }) => rest);
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
    const pictures = this.pictures();
    this.open.record('snapshot', which, {
      which,
      source: 'typed',
      values,
      ...(Object.keys(pictures).length > 0 ? { pictures } : {}),
    });
    this.drafts.update((drafts) => ({ ...drafts, [which]: {} }));
    this.pictures.set({});
    this.kept.emit();
  }
}
