import { Component, DestroyRef, computed, inject, output, signal } from '@angular/core';
import { proxy, wrap } from 'comlink';
import type { Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import { Choice } from '../../controls/choice';
import type { SaidRow, SweepWorker } from '../../compute/sweep.worker';
import { Icon } from '../../controls/icon';
import { OpenJob } from '../../job-state/open-job';
import { SweepDrawing } from './sweep-drawing';

const marks: Readonly<Record<string, string>> = {
  startsByItself: 'stop',
  losesStop: 'stop',
  wrongDirectionOrSpeed: 'warn',
  destroys: 'warn',
  losesFunction: 'advise',
  hidden: 'warn',
  failsSafe: 'done',
  noEffect: '',
};

/** Workers that share the faults: every core but the one the page needs, two at least and four at most. */
const SHARES = Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1));

/** What if it breaks: every wire of the station and every contact, one fault at a time, before power is on. */
@Component({
  selector: 'tac-sweep-panel',
  imports: [Choice, Icon, SweepDrawing],
  template: `
    <section class="sheet" aria-label="What if it breaks">
      <div class="head">
        <h3>What if it breaks</h3>
        @if (running()) {
          <progress [value]="done()" [max]="100" aria-label="Faults simulated"></progress>
          <span class="mono small">{{ done() }} %</span>
          <button class="act" type="button" (click)="cancel()">Cancel</button>
        } @else {
          <button class="act" type="button" (click)="run()">
            <tac-icon name="break" /> {{ rows() ? 'Sweep again' : 'Break every wire' }}
          </button>
        }
      </div>
      @if (failed(); as f) {
        <p class="problem" role="alert">{{ f }}</p>
      }
      @if (rows(); as list) {
        <p class="small soft" role="status">
          {{ list.length }} single faults in four moments each{{
            stale() ? '; of an earlier state of the job: sweep again' : ''
          }}. {{ counts() }}
        </p>
        <div class="head">
          <tac-choice
            label="Shown"
            [dense]="true"
            [options]="filters"
            [value]="filter()"
            (changed)="filter.set($event)"
          />
          <tac-choice
            label="As"
            [dense]="true"
            [options]="views"
            [value]="view()"
            (changed)="view.set($event)"
          />
        </div>
        @if (view() === 'drawing') {
          <tac-sweep-drawing [rows]="list" [class.stale]="stale()" (picked)="picked.emit($event)" />
        }
        <div class="scroll-x" [class.stale]="stale()">
          <table class="plain" aria-label="Single faults">
            <thead>
              <tr>
                <th>wire or contact</th>
                <th>fault</th>
                <th>worst</th>
                <th>it shows</th>
              </tr>
            </thead>
            <tbody>
              @for (r of shown(); track r.key) {
                <tr>
                  <td class="mono">
                    @if (r.wire) {
                      <button class="act quiet" type="button" (click)="picked.emit(r.wire)">
                        {{ r.what }}
                      </button>
                    } @else {
                      {{ r.what }}
                    }
                  </td>
                  <td>{{ r.kind }}</td>
                  <td>
                    <span class="mark" [class]="'mark ' + markOf(r)">{{ r.worstText }}</span>
                  </td>
                  <td [title]="detail(r)">{{ r.worst === 'noEffect' ? '–' : r.moment }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <p class="small soft">
          Simulated with the settings as planned. It does not replace the risk assessment, nor the
          break test of the stop circuit on the machine.
        </p>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 10px;
      padding: 12px 14px;
    }
    .head {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 12px;
    }
    h3 {
      flex: 1;
    }
    .stale {
      outline: 2px dashed var(--line);
      outline-offset: 3px;
    }
    td {
      vertical-align: middle;
    }
    td .act {
      justify-content: start;
      text-align: left;
      padding: 0 6px;
    }
    .problem {
      color: var(--bad);
    }
  `,
})
export class SweepPanel {
  /** A wire the person wants to look at. */
  readonly picked = output<string>();
  private readonly open = inject(OpenJob);
  private workers: readonly Worker[] = [];
  private shares: number[] = [];
  private sweptHash = '';
  protected readonly running = signal(false);
  protected readonly done = signal(0);
  protected readonly rows = signal<readonly SaidRow[] | null>(null);
  protected readonly failed = signal<string | null>(null);
  protected readonly filter = signal('grave');
  protected readonly view = signal('table');
  protected readonly views = [
    { value: 'table', name: 'table' },
    { value: 'drawing', name: 'drawing and table' },
  ];
  protected readonly filters = [
    { value: 'grave', name: 'what must be dealt with' },
    { value: 'all', name: 'all' },
  ];
  protected readonly stale = computed(() => this.rows() !== null && this.hash() !== this.sweptHash);
  protected readonly shown = computed(() =>
    (this.rows() ?? []).filter(
      (r) =>
        this.filter() === 'all' || !['noEffect', 'failsSafe', 'losesFunction'].includes(r.worst),
    ),
  );
  protected readonly counts = computed(() => {
    const by = new Map<string, number>();
    for (const r of this.rows() ?? []) by.set(r.worstText, (by.get(r.worstText) ?? 0) + 1);
    return [...by].map(([text, n]) => `${text}: ${n}`).join(' · ');
  });
  private readonly hash = computed(() => {
    const { adopted, deviations, plate } = this.open.job() ?? {};
    return JSON.stringify([adopted, deviations, plate?.load, plate?.motor]);
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.cancel());
  }

  protected markOf(r: SaidRow): string {
    return marks[r.worst] ?? '';
  }

  protected detail(r: SaidRow): string {
    return r.at.map((a) => `${a.moment}: ${a.text}`).join('; ');
  }

  protected async run(): Promise<void> {
    const [job, profile] = [this.open.job(), this.open.profile()];
    if (!job?.adopted || !profile) return;
    const idle = this.running() ? [] : this.workers;
    if (this.running()) this.cancel();
    // Workers that did a sweep are kept: the next one is quicker.
    const workers = idle.length
      ? idle
      : Array.from(
          { length: SHARES },
          () =>
            new Worker(new URL('../../compute/sweep.worker', import.meta.url), { type: 'module' }),
        );
    this.workers = workers;
    this.running.set(true);
    this.failed.set(null);
    this.done.set(0);
    const hash = this.hash();
    try {
      const crashed = new Promise<never>((_done, fail) =>
        workers.forEach(
          (w) => (w.onerror = () => fail(new Error('The sweep stopped. Start it again.'))),
        ),
      );
      const rows = await Promise.race([this.sweep(workers, job, profile), crashed]);
      if (this.workers !== workers) return;
      this.rows.set(rows);
      this.sweptHash = hash;
    } catch (error) {
      if (this.workers !== workers) return;
      this.failed.set((error as Error).message);
      this.cancel();
    } finally {
      if (this.workers === workers) this.running.set(false);
    }
  }

  /** Every worker judges its share; then each looks for what is hidden in a share of all rows. */
  private async sweep(workers: readonly Worker[], job: Job, profile: Profile): Promise<SaidRow[]> {
    const proxies = workers.map((w) => wrap<SweepWorker>(w));
    const shares = (part: number) => (i: number) =>
      proxy((done: number, of: number) => this.tell(part, i, done, of));
    const all = async <T>(does: (i: number) => Promise<T[]>): Promise<T[]> =>
      (await Promise.all(workers.map((_, i) => does(i)))).flat();
    this.shares = workers.map(() => 0);
    const judged = await all((i) => proxies[i].judge(job, profile, { i, n: SHARES }, shares(0)(i)));
    this.shares = workers.map(() => 0);
    const looked = await all((i) => proxies[i].lookBehind(judged, { i, n: SHARES }, shares(1)(i)));
    return proxies[0].say(looked, job);
  }

  protected cancel(): void {
    this.workers.forEach((w) => w.terminate());
    this.workers = [];
    this.running.set(false);
  }

  /** Progress of one share in one of the two parts, in per cent of the whole. */
  private tell(part: 0 | 1 | number, share: number, done: number, of: number): void {
    this.shares[share] = done / Math.max(1, of);
    const mean = this.shares.reduce((sum, x) => sum + x, 0) / this.shares.length;
    this.done.set(Math.round((part + mean) * 50));
  }
}
