import { Injectable, Injector, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store, type Action } from '@ngrx/store';
import {
  concatMap,
  EMPTY,
  filter,
  firstValueFrom,
  from,
  map,
  mergeMap,
  Observable,
  of,
  switchMap,
  takeUntil,
  tap,
  timer,
  withLatestFrom,
} from 'rxjs';
import type { Evidence } from '@tactron/core/job';
import { Api, ApiError, type Present } from './api';
import { Courier, type News } from './courier';
import { JobActions } from './job.actions';
import type { JobState, ServerChange } from './job.model';
import { jobFeature } from './job.reducer';
import { LocalStore } from './local-store';
import { PresenceHere } from './presence';
import type { KeptBase } from './shelf';
import { actionOf, keepStep } from './steps';

/** How long a job that is kept here waits for the server before it is shown as it is kept. */
const PATIENCE_MS = 1500;
const RETRY_MS = 2000;

/** Reading, keeping and hearing of changes of the open job; sending is the courier's. */
@Injectable()
export class JobEffects {
  /** Who is there is asked for when it is heard of: it needs what the effects keep. */
  private readonly injector = inject(Injector);
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly courier = inject(Courier);
  private readonly state = this.store.select(jobFeature.selectJobState);

  constructor() {
    this.local.onDeleted(() => void this.putBack());
  }

  /** The browser's store was deleted under this window: what the window holds of the open job goes back into it. */
  private async putBack(): Promise<void> {
    const s = await firstValueFrom(this.state);
    if (s.status !== 'ready' || !s.base || !s.profile) return;
    const { id, base: job, revision, archived, profile, outbox, waitingEvidence, undo, redo } = s;
    const waits = new Set(waitingEvidence.map((e) => e.id));
    const evidence = s.evidence.filter((e) => !waits.has(e.id));
    await this.local.putBack(
      { id, job, revision, archived, profile, evidence },
      { outbox, evidence: waitingEvidence, undo, redo },
    );
    void this.courier.run();
  }

  readonly open = createEffect(() =>
    this.actions.pipe(
      ofType(JobActions.open),
      switchMap(({ id }) => from(this.load(id))),
    ),
  );

  /** Everything done is in IndexedDB before the head strip says so, and before it is sent. */
  readonly keep = createEffect(() =>
    this.actions.pipe(
      ofType(
        JobActions.edit,
        JobActions.undo,
        JobActions.redo,
        JobActions.record,
        JobActions.keepMine,
        JobActions.takeTheirs,
      ),
      withLatestFrom(this.state),
      filter(([, s]) => s.status === 'ready'),
      concatMap(([action, s]) => from(keepStep(this.local, action, s))),
      map((inBrowser) => JobActions.kept({ inBrowser })),
      tap(() => void this.courier.run()),
    ),
  );

  /** What waited from before is sent as soon as the job is open. */
  readonly begin = createEffect(
    () =>
      this.actions.pipe(
        ofType(JobActions.opened),
        tap(() => void this.courier.run()),
      ),
    { dispatch: false },
  );

  /** What the courier tells, whichever window it worked in. */
  readonly told = createEffect(() =>
    this.courier.news.pipe(
      withLatestFrom(this.state),
      filter(([news, s]) => news.jobId === s.id && s.status === 'ready'),
      concatMap(([news, s]) => this.actionsOf(news, s)),
    ),
  );

  /** While the server does not answer and nothing waits to be sent, it is asked again for what is new. */
  readonly ask = createEffect(() =>
    this.actions.pipe(
      ofType(JobActions.waiting, JobActions.opened),
      switchMap((action) =>
        action.type === JobActions.opened.type && action.online ? EMPTY : timer(RETRY_MS),
      ),
      takeUntil(this.actions.pipe(ofType(JobActions.close))),
      withLatestFrom(this.state),
      filter(
        ([, s]) =>
          s.status === 'ready' &&
          s.save === 'waiting' &&
          s.outbox.length + s.waitingEvidence.length === 0 &&
          !s.made,
      ),
      concatMap(([, s]) => from(this.refresh(s)).pipe(mergeMap((actions) => actions))),
    ),
  );

  /** Changes made by others. */
  readonly hear = createEffect(() =>
    this.actions.pipe(
      ofType(JobActions.opened),
      filter(({ made }) => !made),
      switchMap(({ id }) =>
        this.events(id).pipe(
          takeUntil(this.actions.pipe(ofType(JobActions.close, JobActions.open))),
        ),
      ),
      concatMap((event) =>
        of(event).pipe(
          withLatestFrom(this.state),
          filter(
            ([, s]) =>
              s.status === 'ready' && (event.kind !== 'change' || event.revision > s.revision),
          ),
          concatMap(([, s]) =>
            from(event.kind === 'evidence' ? this.refreshEvidence(s) : this.refresh(s)).pipe(
              mergeMap((actions) => actions),
            ),
          ),
        ),
      ),
    ),
  );

  private async load(id: string): Promise<Action> {
    const { base, made, evidence: waitingEvidence, ...kept } = await this.local.load(id);
    const waits = made !== undefined || kept.outbox.length > 0 || waitingEvidence.length > 0;
    const own = (online: boolean, problem?: string): Action | null =>
      base
        ? JobActions.opened({
            ...base,
            ...kept,
            waitingEvidence,
            made: made !== undefined,
            online,
            problem,
          })
        : null;
    // What waits was done on the document that is kept: the courier brings it up to date when it sends.
    if (waits && base) return own(false) as Action;
    const fetched = this.fetched(id, base?.evidence).then(
      (fresh) =>
        JobActions.opened({ ...fresh, ...kept, waitingEvidence, made: false, online: true }),
      (error: unknown) => this.unreadable(id, error, own),
    );
    const patience = base
      ? new Promise<null>((done) => setTimeout(() => done(null), PATIENCE_MS))
      : fetched;
    return (await Promise.race([fetched, patience])) ?? (own(false) as Action);
  }

  private unreadable(
    id: string,
    error: unknown,
    own: (online: boolean, problem?: string) => Action | null,
  ): Action {
    const gone = error instanceof ApiError && (error.status === 404 || error.status === 400);
    const kept = own(
      false,
      gone
        ? 'The server does not have this job any more. It is shown as it was last read here; export it under Hand over to keep it.'
        : undefined,
    );
    if (kept) return kept;
    if (gone) return JobActions.openFailed({ id, status: 'missing', problem: error.message });
    return JobActions.openFailed({
      id,
      status: 'failed',
      problem: error instanceof Error ? error.message : 'The job could not be read.',
    });
  }

  private async fetched(id: string, known: readonly Evidence[] = []): Promise<KeptBase> {
    const [{ job, revision, archived }, evidence] = await Promise.all([
      this.api.job(id),
      this.api.evidence(id, known),
    ]);
    const profile = await this.api.profile(job.profile.sha256);
    const fresh = { id, job, revision, archived, profile, evidence };
    await this.local.absorb(fresh);
    return fresh;
  }

  private actionsOf(news: News, s: JobState): Observable<Action> {
    if (news.kind === 'drained')
      return s.conflict ? EMPTY : from(this.refresh(s)).pipe(mergeMap((actions) => actions));
    return of(actionOf(news));
  }

  /** The document and evidence as the server has them now; where something waits, the courier will bring them. */
  private async refresh(s: JobState): Promise<Action[]> {
    try {
      const [{ job, revision, archived }, { changes, tooFar }, evidence] = await Promise.all([
        this.api.job(s.id),
        this.changesAfter(s),
        this.api.evidence(s.id, s.evidence),
      ]);
      const taken =
        s.profile &&
        (await this.local.absorb({
          id: s.id,
          job,
          revision,
          archived,
          profile: s.profile,
          evidence,
        }));
      if (!taken) {
        void this.courier.run();
        return [JobActions.evidenceLoaded({ evidence })];
      }
      const moved =
        revision > s.revision ? [JobActions.stale({ job, revision, changes, tooFar })] : [];
      return [...moved, JobActions.evidenceLoaded({ evidence }), JobActions.caughtUp()];
    } catch (error) {
      return [
        JobActions.waiting({
          problem: error instanceof ApiError && error.status > 0 ? error.message : '',
        }),
      ];
    }
  }

  /** What others changed; too much to be told where this window is thousands of changes behind. */
  private async changesAfter({
    id,
    revision,
  }: JobState): Promise<{ changes: readonly ServerChange[]; tooFar: boolean }> {
    try {
      return { changes: await this.api.changesAfter(id, revision), tooFar: false };
    } catch (error) {
      if (error instanceof ApiError && error.body['tooFar'] === true)
        return { changes: [], tooFar: true };
      throw error;
    }
  }

  private async refreshEvidence(s: JobState): Promise<Action[]> {
    try {
      const evidence = await this.api.evidence(s.id, s.evidence);
      await this.local.absorbEvidence(s.id, evidence);
      return [JobActions.evidenceLoaded({ evidence })];
    } catch {
      return [];
    }
  }

  private events(
    id: string,
  ): Observable<{ kind: 'change' | 'evidence' | 'resync'; revision: number }> {
    if (typeof EventSource === 'undefined') return of();
    return new Observable((out) => {
      const source = new EventSource(`/api/jobs/${id}/events`);
      source.addEventListener('change', (e) =>
        out.next({
          kind: 'change',
          revision: (JSON.parse((e as MessageEvent<string>).data) as { revision: number }).revision,
        }),
      );
      source.addEventListener('evidence', () => out.next({ kind: 'evidence', revision: 0 }));
      source.addEventListener('presence', (e) =>
        this.injector
          .get(PresenceHere)
          .heard(
            id,
            (JSON.parse((e as MessageEvent<string>).data) as { present: Present[] }).present,
          ),
      );
      source.addEventListener('resync', () => out.next({ kind: 'resync', revision: 0 }));
      return () => source.close();
    });
  }
}
