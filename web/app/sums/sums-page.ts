import { Component, DestroyRef, computed, effect, inject, input, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { wrap, type Remote } from 'comlink';
import { Icon } from '../controls/icon';
import { LineChart, type Series } from '../controls/line-chart';
import { PlaceStrip } from '../frame/place-strip';
import { Preferences } from '../frame/preferences';
import { carries } from './carry';
import { DialLabel } from './dial-label';
import {
  argumentsOf,
  asText,
  formLines,
  readNumber,
  rowsOf,
  show,
  typedOf,
  type FormLine,
  type PastSum,
  type Typed,
} from './sum-state';
import type { SumOutcome, SumSpec, SumsWorker } from './sums.worker';

const HISTORY = 'tactron.sums';
const KEPT = 40;

/** Every calculation without a job: form, result and working, history, text to copy, and the way into a job. */
@Component({
  selector: 'tac-sums',
  imports: [DialLabel, Icon, LineChart, PlaceStrip, RouterLink],
  templateUrl: './sums-page.html',
  styleUrl: './sums-page.scss',
})
export class SumsPage {
  readonly name = input<string>();
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  protected readonly preferences = inject(Preferences);
  private readonly worker: Remote<SumsWorker>;

  protected readonly groups = signal<{ id: string; title: string; calculations: SumSpec[] }[]>([]);
  protected readonly search = signal('');
  protected readonly typed = signal<Typed>({});
  protected readonly outcome = signal<SumOutcome | null>(null);
  protected readonly said = signal('');
  protected readonly past = signal<readonly PastSum[]>(readPast());

  protected readonly spec = computed(() => {
    const all = this.groups().flatMap((g) => g.calculations);
    return all.find((c) => c.name === this.name()) ?? all[0];
  });
  protected readonly current = computed(() => this.spec()?.name);
  protected readonly found = computed(() => {
    const wanted = this.search().trim().toLowerCase();
    return this.groups()
      .map((g) => ({
        ...g,
        calculations: g.calculations.filter((c) =>
          `${c.title} ${c.name}`.toLowerCase().includes(wanted),
        ),
      }))
      .filter((g) => g.calculations.length > 0);
  });
  protected readonly lines = computed(() =>
    this.spec() ? formLines(this.spec().args, this.typed()) : [],
  );
  protected readonly working = computed(() => {
    const outcome = this.outcome();
    return outcome?.ok ? outcome.working : null;
  });
  protected readonly plainResults = computed(() =>
    (this.working()?.results ?? []).filter(
      (r) => !Array.isArray(r.value) || typeof r.value[0] === 'number',
    ),
  );
  /** A result that is a list of records, as a table. */
  protected readonly table = computed(() => {
    const rows = (this.working()?.results ?? [])
      .map((r) => r.value)
      .find((value) => Array.isArray(value) && typeof value[0] === 'object') as
      readonly Readonly<Record<string, number>>[] | undefined;
    return rows ? { heads: Object.keys(rows[0]), rows } : null;
  });
  protected readonly chart = computed<{
    x: string;
    y: string;
    right: string;
    series: Series[];
  } | null>(() => {
    const table = this.table();
    if (!table) return null;
    const line = (name: string, x: string, y: string, right = false): Series => ({
      name,
      points: table.rows.map((r) => ({ x: r[x], y: r[y] })),
      right,
    });
    if (table.heads.includes('amps'))
      return {
        x: 's',
        y: 'rpm',
        right: 'A',
        series: [line('speed', 't', 'rpm'), line('current', 't', 'amps', true)],
      };
    return {
      x: 'dial',
      y: 'Hz',
      right: 'rpm',
      series: [line('frequency', 'dial', 'hz'), line('speed', 'dial', 'rpm', true)],
    };
  });
  protected readonly carries = computed(() => carries[this.spec()?.name ?? ''] ?? []);

  constructor() {
    const worker = new Worker(new URL('./sums.worker', import.meta.url), { type: 'module' });
    this.worker = wrap<SumsWorker>(worker);
    inject(DestroyRef).onDestroy(() => worker.terminate());
    void this.worker.list().then((groups) => this.groups.set(groups));
    let shown: string | undefined;
    effect(() => {
      const spec = this.spec();
      if (!spec || spec.name === shown) return;
      shown = spec.name;
      this.typed.set(this.past().find((p) => p.name === spec.name)?.typed ?? {});
      this.said.set('');
    });
    effect(() => {
      const [spec, typed] = [this.spec(), this.typed()];
      if (!spec) return;
      if (Object.keys(typed).length === 0) return this.outcome.set(null);
      void this.worker.run(spec.name, argumentsOf(spec.args, typed)).then((outcome) => {
        if (spec === this.spec() && typed === this.typed()) this.outcome.set(outcome);
      });
    });
  }

  protected type(path: string, text: string): void {
    this.typed.update((t) => ({ ...t, [path]: text }));
  }

  protected example(): void {
    this.typed.set(typedOf(this.spec().example ?? {}, this.preferences.decimal()));
  }

  protected clear(): void {
    this.typed.set({});
  }

  protected addRow(line: FormLine): void {
    const first = Object.keys(line.spec.fields ?? {})[0];
    this.type(`${line.path}.${rowsOf(this.typed(), line.path, line.spec)}.${first}`, '');
  }

  /** What is wrong at a field: what cannot be read there, or what the calculation says of it. */
  protected problemAt(path: string): string | null {
    const text = this.typed()[path];
    const read = text === undefined ? undefined : readNumber(text);
    if (typeof read === 'string' && read !== text)
      return `${read}: write it without the mark, or with more digits.`;
    const outcome = this.outcome();
    return outcome && !outcome.ok && outcome.argument === path ? this.named(outcome) : null;
  }

  /** A problem with the title of its field in place of the argument’s name. */
  private named(outcome: { readonly argument: string; readonly message: string }): string {
    const title = this.lines().find((l) => l.path === outcome.argument)?.spec.title;
    return title ? outcome.message.replace(outcome.argument, `“${title}”`) : outcome.message;
  }

  /** What is still wrong, where no field shows it. */
  protected readonly openProblem = computed(() => {
    const outcome = this.outcome();
    if (!outcome || outcome.ok) return null;
    return this.lines().some(
      (l) => l.path === outcome.argument && this.typed()[l.path] !== undefined,
    )
      ? null
      : this.named(outcome);
  });

  protected value(value: unknown, unit: string): string {
    return show(value, unit, this.preferences.decimal());
  }

  protected labelOf(path: string): string {
    const row = /\.(\d+)\./u.exec(path);
    return row ? ` ${Number(row[1]) + 1}` : '';
  }

  protected keep(): void {
    const working = this.working();
    if (!working) return;
    const result = working.results
      .map((r) => (typeof r.value === 'number' ? `${r.title} ${this.value(r.value, r.unit)}` : ''))
      .filter(Boolean)
      .slice(0, 2)
      .join(', ');
    const sum: PastSum = {
      name: working.name,
      title: working.title,
      at: new Date().toISOString(),
      typed: this.typed(),
      result,
    };
    this.past.update((list) =>
      [
        sum,
        ...list.filter(
          (p) => JSON.stringify(p.typed) !== JSON.stringify(sum.typed) || p.name !== sum.name,
        ),
      ].slice(0, KEPT),
    );
    localStorage.setItem(HISTORY, JSON.stringify(this.past()));
  }

  protected async copy(): Promise<void> {
    const working = this.working();
    if (!working) return;
    this.keep();
    await navigator.clipboard.writeText(asText(working, this.preferences.decimal())).then(
      () => this.said.set('Copied as text.'),
      () => this.said.set('The browser does not allow copying here.'),
    );
  }

  protected async again(sum: PastSum): Promise<void> {
    await this.router.navigate(['/sums', sum.name]);
    this.typed.set(sum.typed);
  }

  protected forget(): void {
    this.past.set([]);
    localStorage.removeItem(HISTORY);
  }

  protected print(): void {
    window.print();
  }

  protected async carry(): Promise<void> {
    const working = this.working();
    if (!working) return;
    this.keep();
    const values = Object.fromEntries(
      [...working.inputs, ...working.results].flatMap((x) =>
        typeof x.value === 'number' ? [[x.name, x.value]] : [],
      ),
    ) as Record<string, number>;
    const { CarryDialog } = await import('./carry-dialog');
    this.dialog
      .open<InstanceType<typeof CarryDialog>, unknown, string>(CarryDialog, {
        data: { carries: this.carries().filter((c) => values[c.from] !== undefined), values },
      })
      .afterClosed()
      .subscribe((said) => said && this.said.set(said));
  }
}

function readPast(): readonly PastSum[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(HISTORY) ?? '[]');
    return Array.isArray(kept) ? (kept as PastSum[]) : [];
  } catch {
    return [];
  }
}
