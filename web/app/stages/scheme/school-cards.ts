import {
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { SaidCard, SaidComparison, SaidQuestion } from '../../compute/compare.worker';
import { Compute } from '../../compute/compute';
import { Choice } from '../../controls/choice';
import { OpenJob } from '../../job-state/open-job';
import { BehaviourCard } from './behaviour-card';

/** Time without a change after which the cards are reckoned anew, ms. */
const QUIET_MS = 250;

/** The questions on which practitioners differ; for one of them the schools side by side as they behave on this job. */
@Component({
  selector: 'tac-school-cards',
  imports: [BehaviourCard, Choice],
  template: `
    @if (questions().length > 1) {
      <tac-choice
        label="To be decided"
        [options]="options()"
        [value]="question()"
        (changed)="asked.set($event)"
      />
    }
    @if (failed()) {
      <p class="problem" role="alert">{{ failed() }}</p>
    }
    @if (comparison(); as c) {
      <div class="cards" [class.stale]="busy()" [attr.aria-busy]="busy()">
        @for (card of ordered(); track card.id) {
          <tac-behaviour-card [card]="card" (picked)="picked.emit(card)" />
        }
      </div>
      @if (c.reasons.length) {
        <p class="small">
          <b>Why the recommended one:</b> {{ c.reasons.join(' ') }} The risk assessment decides, not
          Tactron.
        </p>
      }
    } @else if (busy() || !asks()) {
      <p class="soft waiting" role="status">Simulating the schools on this job…</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .cards {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
      gap: 12px;
      align-items: start;
    }
    // What follows waits below the fold until the cards are there: nothing in view jumps.
    .waiting {
      min-height: calc(100vh - 180px);
    }
    .stale {
      outline: 2px dashed var(--line);
      outline-offset: 3px;
      cursor: progress;
    }
    .problem {
      color: var(--bad);
    }
  `,
})
export class SchoolCards {
  readonly picked = output<SaidCard>();
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private link = this.start();
  private round = 0;
  protected readonly questions = signal<readonly SaidQuestion[]>([]);
  protected readonly asked = signal<string | null>(null);
  protected readonly comparison = signal<SaidComparison | null>(null);
  /** Schools that can be had come first. */
  protected readonly ordered = computed(() =>
    [...(this.comparison()?.cards ?? [])].sort(
      (x, y) => Number(x.impossible !== '') - Number(y.impossible !== ''),
    ),
  );
  protected readonly busy = signal(false);
  /** What is to be decided has been worked out once. */
  protected readonly asks = signal(false);
  protected readonly failed = signal('');
  protected readonly options = computed(() =>
    this.questions().map(({ id, name }) => ({ value: id, name })),
  );
  protected readonly question = computed(
    () =>
      (this.questions().some((q) => q.id === this.asked())
        ? this.asked()
        : this.questions()[0]?.id) ?? undefined,
  );
  private readonly basis = computed(() => {
    const job = this.open.job();
    return job && JSON.stringify([job.scheme, job.plate, job.decisions, job.profile, job.practice]);
  });

  constructor() {
    effect((onCleanup) => {
      this.basis();
      this.question();
      this.open.profile();
      const timer = setTimeout(() => void untracked(() => this.reckon()), QUIET_MS);
      onCleanup(() => clearTimeout(timer));
    });
    inject(DestroyRef).onDestroy(() => this.link.end());
  }

  private start(): ReturnType<Compute['comparison']> {
    return this.compute.comparison(() => {
      this.failed.set('The comparison stopped. It starts anew with the next change.');
      this.asks.set(true);
      this.busy.set(false);
      this.link = this.start();
    });
  }

  private async reckon(): Promise<void> {
    const [job, profile] = [this.open.job(), this.open.profile()];
    if (!job || !profile) return;
    const mine = ++this.round;
    this.busy.set(true);
    this.failed.set('');
    const questions = await this.link.worker.questions(job, profile);
    if (mine !== this.round) return;
    this.questions.set(questions);
    const question = this.question();
    const comparison = question ? await this.link.worker.compare(job, profile, question) : null;
    if (mine !== this.round) return;
    this.comparison.set(comparison);
    this.asks.set(true);
    this.busy.set(false);
  }
}
