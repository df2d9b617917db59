import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { v4 as uuid } from 'uuid';
import {
  CORE_VERSION,
  type Evidence,
  type EvidenceBody,
  type EvidenceKind,
  type Job,
} from '@tactron/core/job';
import { Preferences } from '../frame/preferences';
import type { Derived } from '../compute/compute.types';
import { Compute } from '../compute/compute';
import { JobActions } from './job.actions';
import { Keeping } from './keeping';
import { jobFeature } from './job.reducer';

/** The open job as the stages see it: facts from the store, everything reckoned from the worker. */
@Injectable({ providedIn: 'root' })
export class OpenJob {
  private readonly store = inject(Store);
  private readonly compute = inject(Compute);
  private readonly preferences = inject(Preferences);
  private readonly dialog = inject(MatDialog);
  private readonly keeping = inject(Keeping);

  readonly state = this.store.selectSignal(jobFeature.selectJobState);
  readonly job = computed(() => this.state().job);
  readonly profile = computed(() => this.state().profile);
  readonly evidence = computed(() => this.state().evidence);
  readonly derived = signal<Derived | null>(null);
  /** The numbers on the page are of an earlier state; new ones are being made. */
  readonly working = signal(false);
  readonly failed = signal<string | null>(null);
  /** What the pocket shows the working of. */
  readonly picked = signal<string | null>(null);

  private round = 0;
  /** The last change was made in this window: a plan that follows from it is adopted here and nowhere else. */
  private own = false;

  constructor() {
    effect(() => {
      const { job, profile, evidence } = {
        job: this.job(),
        profile: this.profile(),
        evidence: this.evidence(),
      };
      if (job && profile) void this.derive(job, evidence);
      else this.derived.set(null);
    });
  }

  /** Changes the job. The recipe changes the draft it is given; nothing happens if it changes nothing. */
  edit(label: string, recipe: (draft: Job) => void, follows = false): void {
    const job = this.job();
    if (!job) return;
    const draft = structuredClone(job);
    recipe(draft);
    if (!follows) this.own = true;
    void this.withAuthor((author) =>
      this.store.dispatch(
        JobActions.edit({
          after: draft,
          label,
          follows,
          changeId: uuid(),
          author,
          atClient: new Date().toISOString(),
        }),
      ),
    );
  }

  undo(): void {
    this.own = true;
    if (this.state().undo.length)
      void this.withAuthor((author) =>
        this.store.dispatch(
          JobActions.undo({ changeId: uuid(), author, atClient: new Date().toISOString() }),
        ),
      );
  }

  redo(): void {
    this.own = true;
    if (this.state().redo.length)
      void this.withAuthor((author) =>
        this.store.dispatch(
          JobActions.redo({ changeId: uuid(), author, atClient: new Date().toISOString() }),
        ),
      );
  }

  /** Adds evidence; it is never changed, only superseded. */
  record<K extends EvidenceKind>(
    kind: K,
    subject: string,
    body: EvidenceBody<K>,
    more: { supersedes?: string; why?: string } = {},
  ): void {
    const { id, revision } = this.state();
    void this.withAuthor((author) => {
      const evidence = {
        id: uuid(),
        jobId: id,
        jobRevision: revision,
        kind,
        subject,
        body,
        ...more,
        author,
        atClient: new Date().toISOString(),
        coreVersion: CORE_VERSION,
      };
      this.store.dispatch(JobActions.record({ evidence: evidence as unknown as Evidence }));
    });
  }

  private async withAuthor(act: (author: { name: string; role: string }) => void): Promise<void> {
    if (this.keeping.readOnly())
      return this.store.dispatch(
        JobActions.say({
          problem: 'Your account may read this job and not change it: nothing was changed.',
        }),
      );
    const me = this.keeping.me();
    if (me?.accounts) return act({ name: me.name, role: me.trade });
    const known = this.preferences.author();
    if (known) return act(known);
    const { WhoDialog } = await import('../frame/who-dialog');
    const { firstValueFrom } = await import('rxjs');
    const author = (await firstValueFrom(
      this.dialog.open(WhoDialog, { disableClose: true }).afterClosed(),
    )) as { name: string; role: string } | undefined;
    if (!author) return;
    this.preferences.author.set(author);
    act(author);
  }

  private async derive(job: Job, evidence: readonly Evidence[]): Promise<void> {
    const round = ++this.round;
    const profile = this.profile();
    if (!profile) return;
    this.working.set(true);
    try {
      const derived = await this.compute.derive(job, profile, evidence);
      if (round !== this.round) return;
      this.derived.set(derived);
      this.failed.set(null);
      this.adopt(job, derived);
    } catch (error) {
      if (round === this.round)
        this.failed.set(error instanceof Error ? error.message : String(error));
    } finally {
      if (round === this.round) this.working.set(false);
    }
  }

  /** Until the first evidence a new plan is adopted by itself; after that its difference waits for a person. */
  private adopt(job: Job, derived: Derived): void {
    if (
      !derived.adoption ||
      derived.adoption.planHash === job.adopted?.planHash ||
      this.evidence().some((e) => e.kind !== 'isolation')
    )
      return;
    if (!this.own || job !== this.job() || this.state().conflict || !this.preferences.author())
      return;
    this.own = false;
    this.adoptNow(true);
  }

  adoptNow(follows = false): void {
    const adoption = this.derived()?.adoption;
    if (adoption) this.edit('plan adopted', (draft) => void (draft.adopted = adoption), follows);
  }
}
