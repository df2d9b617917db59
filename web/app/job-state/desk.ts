import { Injectable, inject } from '@angular/core';
import { v4 as uuid } from 'uuid';
import { applyPatch, patchBetween, type Author, type Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import { Api, ApiError, type BoardEntry, type ProfileEntry, type SiteEntry } from './api';
import { Courier } from './courier';
import { LocalStore } from './local-store';

/** How long making a job waits for the server's word before it goes on with what is kept here. */
const PATIENCE_MS = 4000;

/** A list as the server has it, or as it was last read where the server does not answer. */
export interface Listed<T> {
  readonly rows: readonly T[];
  readonly fresh: boolean;
}

/** What is done with jobs that are not open, and the lists around them; with the server or without. */
@Injectable({ providedIn: 'root' })
export class Desk {
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly courier = inject(Courier);

  readonly sites = (): Promise<Listed<SiteEntry>> => this.listed('sites', this.api.sites);
  readonly profiles = (): Promise<Listed<ProfileEntry>> =>
    this.listed('profiles', this.api.profiles);

  /** Jobs this browser can open by itself, as rows of the board. */
  async keptJobs(): Promise<BoardEntry[]> {
    const bases = await this.local.bases();
    const rows = await Promise.all(
      bases.map(async ({ id, job, revision, archived, evidence }) => {
        const shown = (await this.local.outbox(id)).reduce((doc, c) => tried(doc, c.patch), job);
        return {
          archived,
          row: {
            id,
            siteId: shown.siteId,
            revision,
            updatedAt: '',
            evidence: evidence.length,
            job: { ...shown, adopted: shown.adopted !== undefined },
          },
        };
      }),
    );
    return rows
      .filter((r) => !r.archived)
      .map((r) => r.row)
      .sort((x, y) => x.job.tag.localeCompare(y.job.tag, 'en', { numeric: true }));
  }

  /** Device profiles are read ahead, so that a new job can be made where there is no network. */
  async readAhead(): Promise<void> {
    const { rows, fresh } = await this.profiles();
    if (!fresh) return;
    for (const { sha256 } of rows) {
      if (!(await this.local.profile(sha256)))
        await this.local.keepProfile(sha256, await this.api.profile(sha256));
    }
  }

  /**
   * Makes a job, kept here at once and on the server as soon as it answers.
   *
   * @param site given where it is new too
   * @throws Error in the server's words when it refuses the job, or when the device's profile is nowhere to be had
   */
  async makeJob(job: Job, author: Author, site?: { id: string; name: string }): Promise<void> {
    const profile = await this.profileOf(job.profile.sha256);
    const atClient = new Date().toISOString();
    const order = Math.max(0, ...(await this.local.madeJobs()).map((m) => m.order)) + 1;
    await this.local.keepMade(
      { id: job.id, order, job, site, author, atClient },
      { id: job.id, job, revision: 0, archived: false, profile, evidence: [] },
    );
    if (site)
      await this.local.keepList('sites', [
        ...((await this.local.list<SiteEntry>('sites')) ?? []),
        { ...site, archived: false },
      ]);
    await Promise.race([this.courier.run(), new Promise((done) => setTimeout(done, PATIENCE_MS))]);
    const refused = (await this.local.aside()).find((a) => a.id === job.id);
    if (!refused) return;
    await this.local.forgetAside(job.id);
    await this.local.forgetJob(job.id);
    throw new Error(refused.why);
  }

  /** Changes a job that is not open. @returns it as it is afterwards @throws Error when it is neither here nor on the server */
  async change(
    jobId: string,
    label: string,
    author: Author,
    recipe: (draft: Job) => void,
  ): Promise<Job> {
    const before = await this.document(jobId);
    const after = structuredClone(before);
    recipe(after);
    const patch = patchBetween(before, after);
    if (patch.length === 0) return before;
    const { outbox, undo, redo } = await this.local.load(jobId);
    const order = Math.max(0, ...outbox.map((c) => c.order)) + 1;
    const id = uuid();
    await this.local.keep(jobId, {
      changes: [{ id, jobId, order, patch, label, author, atClient: new Date().toISOString() }],
      undo,
      redo,
    });
    await Promise.race([this.courier.run(), new Promise((done) => setTimeout(done, PATIENCE_MS))]);
    const refused = (await this.local.aside()).find((a) => a.id === id);
    if (!refused) return after;
    await this.local.forgetAside(id);
    throw new Error(refused.why);
  }

  private async document(jobId: string): Promise<Job> {
    const outbox = await this.local.outbox(jobId);
    if (outbox.length === 0 && !(await this.local.madeJobs()).some((m) => m.id === jobId)) {
      try {
        const known = (await this.local.base(jobId))?.evidence;
        const [{ job, revision, archived }, evidence] = await Promise.all([
          this.api.job(jobId),
          this.api.evidence(jobId, known),
        ]);
        await this.local.absorb({
          id: jobId,
          job,
          revision,
          archived,
          profile: await this.profileOf(job.profile.sha256),
          evidence,
        });
      } catch (error) {
        if (!(error instanceof ApiError) || error.status !== 0) throw error;
      }
    }
    const base = await this.local.base(jobId);
    if (!base)
      throw new Error(
        'The server does not answer, and this job was not opened in this browser before.',
      );
    return outbox.reduce((doc, c) => applyPatch(doc, c.patch), base.job);
  }

  private async profileOf(sha256: string): Promise<Profile> {
    const kept = await this.local.profile(sha256);
    if (kept) return kept;
    const profile = await this.api.profile(sha256);
    await this.local.keepProfile(sha256, profile);
    return profile;
  }

  private async listed<T>(name: string, read: () => Promise<readonly T[]>): Promise<Listed<T>> {
    try {
      const rows = await read();
      await this.local.keepList(name, rows);
      return { rows, fresh: true };
    } catch (error) {
      const rows = await this.local.list<T>(name);
      if (!rows) throw error;
      return { rows, fresh: false };
    }
  }
}

function tried(job: Job, patch: Parameters<typeof applyPatch>[1]): Job {
  try {
    return applyPatch(job, patch);
  } catch {
    return job;
  }
}
