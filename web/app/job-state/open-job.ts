import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { v4 as uuid } from 'uuid';
import {
  CORE_VERSION,
  signingOf,
  unfit,
  usualRoles,
  type Adopted,
  type Author,
  type Evidence,
  type EvidenceBody,
  type EvidenceKind,
  type Job,
} from '@tactron/core/job';
import { Preferences } from '../frame/preferences';
import type { Derived } from '@tactron/core/said';
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
  /** How far the record is signed. */
  readonly signing = computed(() => signingOf(this.evidence(), this.roles()));
  /** Roles that close a record of this site. */
  readonly roles = signal<readonly string[]>(usualRoles);
  readonly derived = signal<Derived | null>(null);
  /** The numbers on the page are of an earlier state; new ones are being made. */
  readonly working = signal(false);
  readonly failed = signal<string | null>(null);
  /** What the pocket shows the working of. */
  readonly picked = signal<string | null>(null);

  private round = 0;
  /** Changes are made one after the other: each on the job that the one before it left. */
  private line: Promise<void> = Promise.resolve();

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
    effect(() => {
      if (this.state().replan) this.inLine(() => this.replanned());
    });
  }

  /**
   * Changes the job. The recipe changes the draft it is given; nothing happens if it changes nothing. What the change
   * plans otherwise is adopted with it, in the same step, until somebody has worked to the plan.
   */
  edit(label: string, recipe: (draft: Job) => void): void {
    this.inLine(() => this.changed(label, recipe));
  }

  private inLine(act: () => Promise<void>): void {
    this.line = this.line.then(act).catch((error: unknown) => {
      const problem = error instanceof Error ? error.message : String(error);
      this.store.dispatch(JobActions.say({ problem: `Nothing was changed: ${problem}` }));
    });
  }

  private async changed(label: string, recipe: (draft: Job) => void): Promise<void> {
    const author = await this.changer();
    if (!author) return;
    for (;;) {
      const before = this.job();
      if (!before) return;
      const draft = structuredClone(before);
      recipe(draft);
      // A field that was emptied is not there any more: a job is JSON, which has no such thing as undefined.
      const after = JSON.parse(JSON.stringify(draft)) as Job;
      demandFit(after);
      const adopted = plansFrom(before) === plansFrom(after) ? null : await this.follows(after);
      // It was changed meanwhile, elsewhere or by an undo: the change is made on what is there now.
      if (this.job() !== before) continue;
      if (adopted) after.adopted = adopted;
      const stamp = { changeId: uuid(), author, atClient: new Date().toISOString() };
      return this.store.dispatch(JobActions.edit({ after, label, ...stamp }));
    }
  }

  /** The plan of what this window and another wished at the same time, adopted where the rule allows it. */
  private async replanned(): Promise<void> {
    const before = this.job();
    if (!before || !this.state().replan) return;
    const author = this.signing().closed ? undefined : await this.author();
    const adopted = author ? await this.follows(before) : null;
    if (!author || !adopted || this.job() !== before)
      return this.store.dispatch(JobActions.planned());
    const after = { ...before, adopted };
    const stamp = { changeId: uuid(), author, atClient: new Date().toISOString() };
    this.store.dispatch(JobActions.edit({ after, label: 'plan of both changes', ...stamp }));
  }

  /** The plan that goes with a changed job; none where planning fails: the change itself is never held up by it. */
  private async follows(after: Job): Promise<Adopted | null> {
    const profile = this.profile();
    if (!profile || this.state().conflict) return null;
    try {
      return await this.compute.follows(after, profile, this.evidence());
    } catch {
      return null;
    }
  }

  undo(): void {
    if (this.state().undo.length) this.again(JobActions.undo);
  }

  redo(): void {
    if (this.state().redo.length) this.again(JobActions.redo);
  }

  private again(make: typeof JobActions.undo | typeof JobActions.redo): void {
    this.inLine(async () => {
      const author = await this.changer();
      if (author)
        this.store.dispatch(make({ changeId: uuid(), author, atClient: new Date().toISOString() }));
    });
  }

  /** Adds evidence; it is never changed, only superseded. */
  record<K extends EvidenceKind>(
    kind: K,
    subject: string,
    body: EvidenceBody<K>,
    more: { supersedes?: string | string[]; why?: string } = {},
  ): void {
    const { id } = this.state();
    this.inLine(async () => {
      const author = await this.author();
      if (!author) return;
      demandFit({ subject, body, ...more });
      const evidence = {
        id: uuid(),
        jobId: id,
        jobRevision: this.state().revision,
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

  /** Who may change the job; nobody while its record is closed. */
  private async changer(): Promise<Author | undefined> {
    const { closed, number } = this.signing();
    if (!closed) return this.author();
    const problem = `The record is signed and closed as issue ${number}. Open issue ${number + 1} under Hand over to change the job: nothing was changed.`;
    this.store.dispatch(JobActions.say({ problem }));
    return undefined;
  }

  /** Who works here: the account, or the name this browser keeps, asked for once; undefined where nothing may be changed. */
  private async author(): Promise<Author | undefined> {
    if (this.keeping.readOnly()) {
      const problem = 'Your account may read this job and not change it: nothing was changed.';
      this.store.dispatch(JobActions.say({ problem }));
      return undefined;
    }
    const me = this.keeping.me();
    if (me?.accounts) return { name: me.name, role: me.trade };
    const known = this.preferences.author();
    if (known) return known;
    const { WhoDialog } = await import('../frame/who-dialog');
    const { firstValueFrom } = await import('rxjs');
    const author = (await firstValueFrom(
      this.dialog.open(WhoDialog, { disableClose: true }).afterClosed(),
    )) as Author | undefined;
    if (author) this.preferences.author.set(author);
    return author;
  }

  private async derive(job: Job, evidence: readonly Evidence[]): Promise<void> {
    const round = ++this.round;
    const profile = this.profile();
    if (!profile) return;
    this.working.set(true);
    try {
      const derived = await this.compute.derive(job, profile, evidence);
      if (round !== this.round || !derived) return;
      this.derived.set(derived);
      this.failed.set(null);
    } catch (error) {
      if (round === this.round)
        this.failed.set(error instanceof Error ? error.message : String(error));
    } finally {
      if (round === this.round) this.working.set(false);
    }
  }

  /** Adopts the plan that waits for a person, since somebody has worked to the one before. */
  adoptNow(): void {
    const adoption = this.derived()?.adoption;
    if (adoption) this.edit('plan adopted', (draft) => void (draft.adopted = adoption));
  }
}

/** @throws Error for what no server would take: half a character, as a cut paste leaves it */
function demandFit(data: unknown): void {
  const odd = unfit(data);
  if (odd) throw new Error(`${odd.message} (${odd.path}).`);
}

/** Everything a plan is made from, so that a change of anything else does not wait for one. */
const plansFrom = ({ plate, scheme, decisions, profile, practice }: Job): string =>
  JSON.stringify([plate, scheme, decisions, profile, practice]);
