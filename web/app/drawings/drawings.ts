import { Injectable, computed, effect, inject, signal, type Signal } from '@angular/core';
import type { Profile } from '@tactron/core/catalogue';
import type { CircuitDiagram, CircuitOptions } from '@tactron/core/drawings';
import type { Job } from '@tactron/core/job';
import { Compute } from '../compute/compute';
import type { Connections } from '../compute/drawing.worker';
import { OpenJob } from '../job-state/open-job';

/** A drawing that follows the job: the last one stays until the next is laid out. */
export interface Followed<T> {
  readonly drawing: Signal<T | null>;
  /** Why there is none, or why it is the one of before. */
  readonly problem: Signal<string>;
}

/** Drawings of the open job, laid out in a worker. */
@Injectable({ providedIn: 'root' })
export class Drawings {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);

  /** What a drawing is made from: another fact of the job draws nothing anew. */
  private readonly source = computed(
    () => {
      const job = this.open.job();
      const profile = this.open.profile();
      return job?.adopted && profile ? { job, profile } : null;
    },
    { equal: (a, b) => a === b || (a !== null && b !== null && sameDrawn(a, b)) },
  );

  /** Devices and terminals as planned. To be called where a component is made. */
  connections(): Followed<Connections> {
    return this.follow((job, profile) => this.compute.drawings().connections(job, profile));
  }

  /** Current paths. To be called where a component is made. */
  circuit(
    which: 'planned' | 'built',
    width: number,
    part: Signal<NonNullable<CircuitOptions['part']>> = signal('all' as const),
  ): Followed<CircuitDiagram> {
    return this.follow((job, profile) =>
      this.compute.drawings().circuit(job, profile, which, width, part()),
    );
  }

  private follow<T>(draw: (job: Job, profile: Profile) => Promise<T | null>): Followed<T> {
    const drawing = signal<T | null>(null);
    const problem = signal('');
    let round = 0;
    effect(() => {
      const source = this.source();
      const mine = ++round;
      if (!source) return drawing.set(null);
      draw(source.job, source.profile).then(
        (drawn) => {
          if (mine !== round) return;
          drawing.set(drawn);
          problem.set('');
        },
        (error: unknown) => {
          if (mine !== round) return;
          const why = error instanceof Error ? error.message : String(error);
          problem.set(`The drawing could not be laid out: ${why}`);
        },
      );
    });
    return { drawing, problem };
  }
}

interface Source {
  readonly job: Job;
  readonly profile: Profile;
}

const sameDrawn = (a: Source, b: Source): boolean =>
  a.profile === b.profile &&
  a.job.id === b.job.id &&
  a.job.adopted === b.job.adopted &&
  a.job.deviations === b.job.deviations &&
  a.job.practice === b.job.practice;
