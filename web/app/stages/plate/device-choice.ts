import { Component, computed, effect, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { v4 as uuid } from 'uuid';
import { emptyJob, type Job } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import type { SaidFit } from '../../compute/plan.worker';
import { Preferences } from '../../frame/preferences';
import { Desk } from '../../job-state/desk';
import { OpenJob } from '../../job-state/open-job';

/** Every family and model against supply, motor and wishes of the job: fits, fits without, cannot because. */
@Component({
  selector: 'tac-device-choice',
  imports: [RouterLink],
  templateUrl: './device-choice.html',
  styleUrl: './device-choice.scss',
})
export class DeviceChoice {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly desk = inject(Desk);
  private readonly router = inject(Router);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly fits = signal<readonly SaidFit[] | null>(null);
  protected readonly problem = signal('');
  /** Whose models are all shown, by family. */
  protected readonly all = signal<string | null>(null);

  constructor() {
    let round = 0;
    effect(() => {
      const mine = ++round;
      this.compute.fits(this.job()).then(
        (fits) => mine === round && this.fits.set(fits),
        (error: Error) => this.problem.set(error.message),
      );
    });
  }

  /** Models that matter: the smallest that carries the motor and those around it, or all. */
  protected shown({ family, models, smallest }: SaidFit): SaidFit['models'] {
    if (this.all() === family || models.length <= 4) return models;
    const at = Math.max(
      0,
      models.findIndex((m) => m.model === smallest),
    );
    return models.slice(Math.max(0, at - 1), at + 3);
  }

  protected isOwn(family: string, model: string): boolean {
    const { profile } = this.job();
    return profile.family === family && profile.model === model;
  }

  /** Takes a model of the job's own family; for another family a job of its own is made, with plates and wishes. */
  protected async take({ family }: SaidFit, model: string): Promise<void> {
    const job = this.job();
    this.problem.set('');
    if (family === job.profile.family) {
      this.open.edit(`model ${model}`, (draft) => void (draft.profile.model = model));
      return;
    }
    try {
      const { rows } = await this.desk.profiles();
      const profile = rows.find((p) => p.family === family);
      if (!profile)
        throw new Error('The profile of this family is not here. Open the Library once.');
      const made: Job = {
        ...emptyJob({
          id: uuid(),
          siteId: job.siteId,
          tag: `${job.tag}-${model}`.slice(0, 40),
          machine: job.machine,
          practice: job.practice,
          profile: { family, model, version: '1', sha256: profile.sha256 },
        }),
        plate: job.plate,
        scheme: job.scheme,
      };
      await this.desk.makeJob(made, this.preferences.signed());
      await this.router.navigate(['/jobs', made.id, 'plate']);
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
