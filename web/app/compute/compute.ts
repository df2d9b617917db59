import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Adopted, Evidence, EvidenceOf, Job, Scheme } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { Table } from '@tactron/core/formats';
import type { MotorCurves } from '@tactron/core/line';
import type { Derived, PartsAndTools } from '@tactron/core/said';
import type { CardWorker } from './card.worker';
import type { CausesWorker } from './causes.worker';
import type { CompareWorker } from './compare.worker';
import type { DeriveWorker } from './derive.worker';
import type { DrawingWorker } from './drawing.worker';
import { runLayout } from './layouter';
import type { Missing, PlanWorker, SaidMove, SaidFit, SaidProfile } from './plan.worker';
import type { RehearseWorker } from './rehearse.worker';

/** Everything heavy runs here, away from the interface's thread, behind two typed proxies. */
@Injectable({ providedIn: 'root' })
export class Compute {
  private deriver: Remote<DeriveWorker> | undefined;
  private planner: Remote<PlanWorker> | undefined;
  private drawer: Remote<DrawingWorker> | undefined;
  private planless: ((error: Error) => void) | undefined;
  private round = 0;
  private crashed: ((error: Error) => void) | undefined;

  private derivers(): Remote<DeriveWorker> {
    if (this.deriver) return this.deriver;
    const worker = new Worker(new URL('./derive.worker', import.meta.url), { type: 'module' });
    worker.onerror = () => {
      this.deriver = undefined;
      this.crashed?.(new Error('The reckoning stopped. It starts anew with the next change.'));
    };
    return (this.deriver = wrap<DeriveWorker>(worker));
  }

  private planners(): Remote<PlanWorker> {
    if (this.planner) return this.planner;
    const worker = new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });
    worker.onerror = () => {
      this.planner = undefined;
      this.planless?.(new Error('The planning stopped. It starts anew with the next change.'));
    };
    return (this.planner = wrap<PlanWorker>(worker));
  }

  /** Lays out drawings; one that has stopped is started anew with the next call. */
  drawings(): Remote<DrawingWorker> {
    if (this.drawer) return this.drawer;
    const worker = new Worker(new URL('./drawing.worker', import.meta.url), { type: 'module' });
    worker.onerror = () => (this.drawer = undefined);
    this.drawer = wrap<DrawingWorker>(worker);
    void this.drawer.layOutBy(proxy(runLayout));
    return this.drawer;
  }

  /** The plan that is adopted with a change; null where the change builds nothing otherwise, or a person must decide. */
  async follows(
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
  ): Promise<Adopted | null> {
    const stopped = new Promise<never>((_done, fail) => (this.planless = fail));
    return Promise.race([this.planners().follows(job, profile, evidence), stopped]);
  }

  /** What plates and wishes of some jobs leave open. */
  async missing(jobs: readonly Pick<Job, 'plate' | 'scheme' | 'profile'>[]): Promise<Missing[]> {
    return this.planners().missing(jobs);
  }

  /** What a profile tells of terminals and behaviour, in words. */
  async profile(profile: Profile): Promise<SaidProfile> {
    return this.planners().profile(profile);
  }

  /** Every family and model against supply, motor and wishes of a job, in words. */
  async fits(job: Job): Promise<SaidFit[]> {
    return this.planners().fits(job);
  }

  /** The decision that moving one end of a wire makes. */
  async moved(
    job: Job,
    profile: Profile,
    wire: string,
    end: 'from' | 'to',
    landing: string,
  ): Promise<SaidMove> {
    return this.planners().moved(job, profile, wire, end, landing);
  }

  /**
   * Everything that is reckoned of a job. A later call cancels the one before it.
   *
   * @returns null where a later call has cancelled it
   */
  async derive(job: Job, profile: Profile, evidence: readonly Evidence[]): Promise<Derived | null> {
    const stopped = new Promise<never>((_done, fail) => (this.crashed = fail));
    return Promise.race([this.derivers().derive(++this.round, job, profile, evidence), stopped]);
  }

  async files(
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
  ): Promise<Record<string, string>> {
    const drawings = job.adopted ? await this.drawings().files(job, profile) : {};
    return this.derivers().files(job, profile, evidence, drawings);
  }

  /** Tables as CSV, by the name of the file. */
  async csvs(tables: Readonly<Record<string, Table>>): Promise<Record<string, string>> {
    return this.derivers().csvs(tables);
  }

  /** Hash of what would be signed now. */
  async contentHash(job: Job, profile: Profile, evidence: readonly Evidence[]): Promise<string> {
    return this.derivers().contentHash(job, profile, evidence);
  }

  /** Whether what an issue froze is still what the job is. */
  async stands(
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
    frozen: EvidenceOf<'issue'>,
  ): Promise<boolean> {
    return this.derivers().stands(job, profile, evidence, frozen);
  }

  async curves(job: Job, profile: Profile): Promise<MotorCurves | null> {
    return this.derivers().curves(job, profile);
  }

  /** Wishes that start anew from a shipped arrangement; null where there is none of this name. */
  async startFrom(scheme: Scheme, arrangement: string, speeds: boolean): Promise<Scheme | null> {
    return this.derivers().startFrom(scheme, arrangement, speeds);
  }

  /** Parts and tools of a job, in words. */
  async parts(job: Job, profile: Profile): Promise<PartsAndTools> {
    return this.derivers().parts(job, profile);
  }

  /** A worker for the behaviour cards of one page, so that a keystroke never waits for them. */
  comparison(failed: () => void): { worker: Remote<CompareWorker>; end: () => void } {
    const worker = new Worker(new URL('./compare.worker', import.meta.url), { type: 'module' });
    worker.onerror = failed;
    return { worker: wrap<CompareWorker>(worker), end: () => worker.terminate() };
  }

  /** A worker for the card of the panel: it runs trials, and nothing else waits for them. */
  card(failed: () => void): { worker: Remote<CardWorker>; end: () => void } {
    const worker = new Worker(new URL('./card.worker', import.meta.url), { type: 'module' });
    worker.onerror = failed;
    return { worker: wrap<CardWorker>(worker), end: () => worker.terminate() };
  }

  /** A worker that looks for causes of a failed reading, so that the next answer never waits for it. */
  causeFinder(failed: () => void): { worker: Remote<CausesWorker>; end: () => void } {
    const worker = new Worker(new URL('./causes.worker', import.meta.url), { type: 'module' });
    worker.onerror = failed;
    return { worker: wrap<CausesWorker>(worker), end: () => worker.terminate() };
  }

  /** A worker of its own for one rehearsal: nothing else queues behind a press. */
  rehearsal(failed: () => void): { worker: Remote<RehearseWorker>; end: () => void } {
    const worker = new Worker(new URL('./rehearse.worker', import.meta.url), { type: 'module' });
    worker.onerror = failed;
    return { worker: wrap<RehearseWorker>(worker), end: () => worker.terminate() };
  }
}
