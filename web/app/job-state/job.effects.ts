import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  asapScheduler,
  concatMap,
  exhaustMap,
  filter,
  from,
  map,
  merge,
  mergeMap,
  Observable,
  observeOn,
  of,
  switchMap,
  takeUntil,
  timer,
  withLatestFrom,
} from 'rxjs';
import { Api, ApiError } from './api';
import { JobActions } from './job.actions';
import type { JobState, ServerChange } from './job.model';
import { jobFeature } from './job.reducer';
import { LocalStore } from './local-store';
import type { Job } from '@tactron/core/job';

const RETRY_MS = 2000;

/** Reading, keeping, sending and hearing of changes of the open job. */
@Injectable()
export class JobEffects {
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly state = this.store.select(jobFeature.selectJobState);

  readonly open = createEffect(() => this.actions.pipe(ofType(JobActions.open), switchMap(({ id }) => from(this.load(id))))); // prettier-ignore

  /** Everything that waits is in IndexedDB before the head strip says so. */
  readonly keep = createEffect(() =>
    this.actions.pipe(
      ofType(
        JobActions.edit,
        JobActions.undo,
        JobActions.redo,
        JobActions.record,
        JobActions.keepMine,
        JobActions.takeTheirs,
        JobActions.saved,
        JobActions.recorded,
        JobActions.refused,
      ),
      withLatestFrom(this.state),
      concatMap(([action, s]) => {
        const sent =
          action.type === JobActions.saved.type || action.type === JobActions.refused.type
            ? [action.changeId]
            : action.type === JobActions.recorded.type
              ? action.stored.map((e) => e.id)
              : [];
        return from(this.keepState(s, sent)).pipe(map(() => JobActions.kept()));
      }),
    ),
  );

  /** Sends what waits, one change after the other; tries again when the server is back. */
  readonly drain = createEffect(() =>
    merge(
      this.actions.pipe(ofType(JobActions.kept, JobActions.opened, JobActions.stale)),
      this.actions.pipe(
        ofType(JobActions.waiting),
        switchMap(() => timer(RETRY_MS)),
      ),
    ).pipe(
      withLatestFrom(this.state),
      filter(([, s]) => s.status === 'ready' && !s.conflict && (s.outbox.length > 0 || s.waitingEvidence.length > 0 || s.save === 'waiting')),
      exhaustMap(([, s]) => from(this.send(s))),
      // The answer is told after this round has ended: told within it, the next round it asks for would be dropped.
      observeOn(asapScheduler),
      mergeMap((actions) => actions),
    ),
  );

  /** Changes made in other windows. */
  readonly hear = createEffect(() =>
    this.actions.pipe(
      ofType(JobActions.opened),
      switchMap(({ id }) => this.events(id).pipe(takeUntil(this.actions.pipe(ofType(JobActions.close, JobActions.open))))),
      concatMap((event) =>
        of(event).pipe(
          withLatestFrom(this.state),
          filter(([, s]) => event.kind !== 'change' || (event.revision > s.revision && s.outbox.length === 0)),
          concatMap(([, s]) => from(this.refresh(event.kind, s)).pipe(mergeMap((actions) => actions))),
        ),
      ),
    ),
  );

  private async load(id: string) {
    const kept = await this.local.load(id).catch(() => ({ base: undefined, outbox: [], evidence: [], undo: [], redo: [] }));
    const waiting = { outbox: kept.outbox, waitingEvidence: kept.evidence, undo: kept.undo, redo: kept.redo };
    try {
      const [{ job, revision, archived }, evidence] = await Promise.all([this.api.job(id), this.api.evidence(id)]);
      const profile = await this.api.profile(job.profile.sha256);
      await this.local.keepBase({ id, job, revision, archived, profile, evidence }).catch(() => undefined);
      const since = kept.base && kept.outbox.length ? await this.api.changesAfter(id, kept.base.revision) : [];
      const arrived = new Set(since.map((c) => c.id));
      return JobActions.opened({
        id,
        job,
        revision,
        archived,
        profile,
        evidence,
        ...waiting,
        outbox: waiting.outbox.filter((c) => !arrived.has(c.id)),
        online: true,
      });
    } catch (error) {
      if (error instanceof ApiError && (error.status === 404 || error.status === 400))
        return JobActions.openFailed({ id, status: 'missing', problem: error.message });
      if (kept.base) return JobActions.opened({ ...kept.base, ...waiting, online: false });
      return JobActions.openFailed({ id, status: 'failed', problem: error instanceof Error ? error.message : 'The job could not be read.' });
    }
  }

  private async keepState(s: JobState, sent: readonly string[]): Promise<void> {
    await this.local.keep(s.id, s.outbox, s.waitingEvidence, s.undo, s.redo, sent).catch(() => undefined);
    if (s.base && s.profile)
      await this.local
        .keepBase({ id: s.id, job: s.base, revision: s.revision, archived: s.archived, profile: s.profile, evidence: s.evidence.filter((e) => e.hash) })
        .catch(() => undefined);
  }

  private async send(s: JobState) {
    try {
      const [change] = s.outbox;
      if (change) {
        const { revision } = await this.api.change(s.id, {
          id: change.id,
          base: s.revision,
          patch: change.patch,
          author: change.author,
          atClient: change.atClient,
        });
        return [JobActions.saved({ changeId: change.id, revision })];
      }
      if (s.waitingEvidence.length) return [JobActions.recorded({ stored: await this.api.addEvidence(s.id, s.waitingEvidence) })];
      return this.refresh('resync', s);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 412) {
        const { job, revision, changes } = error.body as unknown as { job: Job; revision: number; changes: ServerChange[] };
        return [JobActions.stale({ job, revision, changes })];
      }
      if (error.status === 400 && s.outbox[0]) return [JobActions.refused({ changeId: s.outbox[0].id, problem: error.message })];
      return [JobActions.waiting({ problem: error.message })];
    }
  }

  private async refresh(kind: string, s: JobState) {
    try {
      if (kind === 'evidence') return [JobActions.evidenceLoaded({ evidence: await this.api.evidence(s.id) })];
      const [{ job, revision }, changes, evidence] = await Promise.all([this.api.job(s.id), this.api.changesAfter(s.id, s.revision), this.api.evidence(s.id)]);
      return [JobActions.stale({ job, revision, changes }), JobActions.evidenceLoaded({ evidence }), JobActions.recorded({ stored: [] })];
    } catch {
      return [JobActions.waiting({ problem: 'The server does not answer.' })];
    }
  }

  private events(id: string): Observable<{ kind: 'change' | 'evidence' | 'resync'; revision: number }> {
    if (typeof EventSource === 'undefined') return of();
    return new Observable((out) => {
      const source = new EventSource(`/api/jobs/${id}/events`);
      source.addEventListener('change', (e) =>
        out.next({ kind: 'change', revision: (JSON.parse((e as MessageEvent<string>).data) as { revision: number }).revision }),
      );
      source.addEventListener('evidence', () => out.next({ kind: 'evidence', revision: 0 }));
      source.addEventListener('resync', () => out.next({ kind: 'resync', revision: 0 }));
      return () => source.close();
    });
  }
}
