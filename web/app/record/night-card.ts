import { DestroyRef, Injectable, effect, inject, signal } from '@angular/core';
import { Compute } from '../compute/compute';
import type { SaidNight } from '@tactron/core/said';
import { OpenJob } from '../job-state/open-job';

/** The likeliest faults of the open job in use, reckoned beside the page that provides it: its sweep takes a while. */
@Injectable()
export class NightCard {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  /** None while they are reckoned. */
  readonly rows = signal<readonly SaidNight[]>([]);
  readonly busy = signal(false);
  private running: Promise<void> = Promise.resolve();
  private end = (): void => undefined;
  /** What the rows are of: the same plan is not swept twice. */
  private of = '';

  constructor() {
    inject(DestroyRef).onDestroy(() => this.end());
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      const { id } = this.open.state();
      const key = job?.adopted ? JSON.stringify([id, job.adopted, job.scheme, job.deviations]) : id;
      if (!job || !profile || key === this.of) return;
      this.of = key;
      this.end();
      this.rows.set([]);
      if (!job.adopted) return;
      this.busy.set(true);
      this.running = new Promise((over) => {
        // A worker that is ended, or fails, answers nothing: whoever waits goes on without it.
        const { worker, end } = this.compute.card(() => this.end());
        this.end = () => {
          end();
          this.busy.set(false);
          over();
        };
        void worker.night(job, profile).then((rows) => {
          if (this.of === key) this.rows.set(rows);
          this.end();
        });
      });
    });
  }

  /** Resolves when the rows are there, or cannot be had. */
  ready(): Promise<void> {
    return this.running;
  }
}
