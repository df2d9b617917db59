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
import { readingTold } from '@tactron/core/job';
import type { SaidCause, Told } from '../../compute/causes.worker';
import type { SaidStep } from '../../compute/compute.types';
import { Compute } from '../../compute/compute';
import { OpenJob } from '../../job-state/open-job';

/** The one value that stands for a step; none where several places were read. */
function toldBy({ step, reading }: SaidStep): Told[] {
  const values = reading ? readingTold(reading.body).values : [];
  const value = values.length === 1 ? values[0].value : undefined;
  return value === undefined ? [] : [{ step, value }];
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
    () => this.step().step.sees === undefined || toldBy(this.step()).length === 0,
  );
  private readonly link = this.compute.causeFinder(() => this.problem.set(true));
  private round = 0;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.link.end());
    effect(() => void this.look(this.step(), this.steps()));
  }

  private async look(failed: SaidStep, steps: readonly SaidStep[]): Promise<void> {
    const mine = ++this.round;
    const [job, profile] = [this.open.job(), this.open.profile()];
    const [told] = toldBy(failed);
    if (!job || !profile || !told || !failed.step.sees) return;
    this.causes.set(null);
    const others = steps.filter(
      (s) => s.step.key !== failed.step.key && (s.state === 'pass' || s.state === 'fail'),
    );
    const found = await this.link.worker.causes(job, profile, told, others.flatMap(toldBy));
    if (mine === this.round) this.causes.set(found);
  }
}
