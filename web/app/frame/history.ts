import { Component, computed, inject, signal } from '@angular/core';
import { patchBetween, valueAt, type Job } from '@tactron/core/job';
import { Api, CLOCK_TOLERANCE_S, type HistoryLine } from '../job-state/api';
import { howLong } from '../job-state/keeping';
import { OpenJob } from '../job-state/open-job';
import { isBookkeeping, placeName } from './place-name';
import { moment } from '@tactron/core/units';

const PAGE = 50;

/** Who changed what, and when by either clock; any moment can be looked at, and gone back to as a new change. */
@Component({
  selector: 'tac-history',
  templateUrl: './history.html',
  styleUrl: './history.scss',
})
export class History {
  private readonly api = inject(Api);
  protected readonly open = inject(OpenJob);
  protected readonly lines = signal<readonly HistoryLine[] | null>(null);
  protected readonly failed = signal<string | null>(null);
  protected readonly more = signal(false);
  protected readonly looked = signal<{ readonly line: HistoryLine; readonly then: Job } | null>(
    null,
  );
  protected readonly said = signal('');
  protected readonly waiting = computed(() => this.open.state().outbox);
  /** What differs now from the moment looked at, place by place. */
  protected readonly differences = computed(() => {
    const [now, looked] = [this.open.job(), this.looked()];
    if (!now || !looked) return [];
    return patchBetween(now, looked.then)
      .filter((op) => !isBookkeeping(op.path))
      .map((op) => ({
        path: op.path,
        place: placeName(op.path, now),
        then: op.op === 'remove' ? 'not there' : shown('value' in op ? op.value : ''),
        now: shown(valueAt(now, op.path)),
      }));
  });

  protected readonly clock = (iso: string): string => moment(iso, true);

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    const known = this.lines() ?? [];
    try {
      const next = await this.api.history(this.open.state().id, known.at(-1)?.revision);
      this.lines.set([...known, ...next]);
      this.more.set(next.length === PAGE);
      this.failed.set(null);
    } catch (error) {
      this.failed.set((error as Error).message);
    }
  }

  protected async look(line: HistoryLine): Promise<void> {
    this.said.set('');
    try {
      this.looked.set({ line, then: await this.api.jobAt(this.open.state().id, line.revision) });
    } catch (error) {
      this.said.set((error as Error).message);
    }
  }

  /** The job as it was then becomes the job now: a change like any other, which Undo takes back. Evidence stays. */
  protected goBack(): void {
    const looked = this.looked();
    if (!looked) return;
    this.open.edit(`back to ${this.clock(looked.line.atClient)}`, (draft) => {
      for (const key of Object.keys(draft)) Reflect.deleteProperty(draft, key);
      Object.assign(draft, structuredClone(looked.then));
    });
    this.said.set(
      `The job is as it was on ${this.clock(looked.line.atClient)}. Readings that rest on what changed are stale. Undo takes this back.`,
    );
    this.looked.set(null);
  }

  protected what(line: {
    readonly label: string;
    readonly places?: readonly string[];
    readonly patch?: readonly { op: string; path: string }[];
  }): string {
    const places =
      line.places ?? (line.patch ?? []).filter((p) => p.op !== 'test').map((p) => p.path);
    return line.label || this.named(places.slice(0, 4));
  }

  protected places(line: HistoryLine): string {
    return line.kind === 'checkpoint' ? '' : this.named(line.places);
  }

  private named(places: readonly string[]): string {
    const names = places.filter((p) => !isBookkeeping(p)).map((p) => placeName(p, this.open.job()));
    return [...new Set(names)].join(', ');
  }

  /** Both times where they are told apart by more than two minutes of clock. */
  protected clockNote({ clockAheadS, atServer }: HistoryLine): string {
    if (clockAheadS === null || Math.abs(clockAheadS) <= CLOCK_TOLERANCE_S) return '';
    return `clock ${howLong(Math.abs(clockAheadS))} ${clockAheadS > 0 ? 'ahead' : 'behind'}; at the server ${this.clock(atServer)}`;
  }
}

const shown = (value: unknown): string => {
  if (value === undefined) return 'not there';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > 120 ? `${text.slice(0, 118)} …` : text;
};
