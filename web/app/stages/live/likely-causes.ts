import {
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import type { Profile } from '@tactron/core/catalogue';
import { readingTold, type Job } from '@tactron/core/job';
import type { DeadTold, SaidCause, Told } from '../../compute/causes.worker';
import type { SaidStep } from '@tactron/core/said';
import { Compute } from '../../compute/compute';
import { OpenJob } from '../../job-state/open-job';

/** The one value that stands for a step; none where several places were read. */
function toldBy({ step, reading }: SaidStep): Told[] {
  const values = reading ? readingTold(reading.body).values : [];
  const value = values.length === 1 ? values[0].value : undefined;
  return value === undefined ? [] : [{ step, value }];
}

/** Every value of a dead check, overload as no end of ohms. */
function deadTold({ step, reading }: SaidStep): DeadTold[] {
  const values = reading ? readingTold(reading.body).values : [];
  return values.length > 0 && step.act !== undefined
    ? [{ step, values: values.map(({ value, over }) => (over ? Infinity : (value ?? ''))) }]
    : [];
}

/** What is likely wrong where an answer failed: the act that mends it, and the way back to measuring again. */
@Component({
  selector: 'tac-likely-causes',
  templateUrl: './likely-causes.html',
  styleUrl: './likely-causes.scss',
})
export class LikelyCauses {
  private readonly compute = inject(Compute);
  private readonly open = inject(OpenJob);
  readonly step = input.required<SaidStep>();
  readonly steps = input.required<readonly SaidStep[]>();
  /** What was mended; the answer is given again. */
  readonly mended = output<string>();
  readonly builtSo = output<SaidCause>();

  protected readonly causes = signal<readonly SaidCause[] | null>(null);
  protected readonly problem = signal(false);
  /** Nothing simulated is looked at here: a current, a time. */
  protected readonly blind = computed(
    () =>
      !this.isDead() && (this.step().step.sees === undefined || toldBy(this.step()).length === 0),
  );
  private readonly isDead = computed(() => this.step().step.part === 'dead');
  private readonly link = this.compute.causeFinder(() => this.problem.set(true));
  private round = 0;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.link.end());
    effect(() => void this.look(this.step(), this.steps()));
  }

  private async look(failed: SaidStep, steps: readonly SaidStep[]): Promise<void> {
    const mine = ++this.round;
    const [job, profile] = [this.open.job(), this.open.profile()];
    if (!job || !profile) return;
    const others = steps.filter(
      (s) => s.step.key !== failed.step.key && (s.state === 'pass' || s.state === 'fail'),
    );
    const found = this.isDead()
      ? this.ofDead(job, profile, failed, others)
      : this.ofLive(job, profile, failed, others);
    if (!found) return;
    this.causes.set(null);
    const causes = await found;
    if (mine === this.round) this.causes.set(causes);
  }

  private ofLive(
    job: Job,
    profile: Profile,
    failed: SaidStep,
    others: readonly SaidStep[],
  ): Promise<SaidCause[]> | undefined {
    const [told] = toldBy(failed);
    if (!told || !failed.step.sees) return undefined;
    return this.link.worker.causes(job, profile, told, others.flatMap(toldBy));
  }

  private ofDead(
    job: Job,
    profile: Profile,
    failed: SaidStep,
    others: readonly SaidStep[],
  ): Promise<SaidCause[]> | undefined {
    const [told] = deadTold(failed);
    return told && this.link.worker.deadCauses(job, profile, told, others.flatMap(deadTold));
  }
}
