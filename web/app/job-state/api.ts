import { Injectable } from '@angular/core';
import type { Evidence, Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { ServerChange } from './job.model';

/** A refusal of the server, in its own words. `status` 0: it did not answer. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

export interface ProfileEntry {
  readonly sha256: string;
  readonly family: string;
  readonly title: string;
  readonly description: string;
  readonly kind: string;
  readonly models: Profile['models'];
  readonly supply: Profile['supply'];
  readonly gaps: readonly string[];
}

export interface SiteEntry {
  readonly id: string;
  readonly name: string;
  readonly archived: boolean;
}

export interface BoardEntry {
  readonly id: string;
  readonly siteId: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly evidence: number;
  readonly job: Pick<Job, 'tag' | 'machine' | 'profile' | 'plate' | 'scheme' | 'practice'> & { readonly adopted: boolean };
}

/** The server's interface. */
@Injectable({ providedIn: 'root' })
export class Api {
  private async ask<T>(path: string, init?: RequestInit): Promise<T> {
    let answer: Response;
    try {
      answer = await fetch(`/api/${path}`, { ...init, headers: init?.body ? { 'content-type': 'application/json' } : {}, signal: AbortSignal.timeout(15_000) });
    } catch {
      throw new ApiError(0, 'The server does not answer.');
    }
    const body = (await answer.json().catch(() => ({}))) as Record<string, unknown>;
    if (!answer.ok) throw new ApiError(answer.status, typeof body['title'] === 'string' ? body['title'] : `The server answered ${answer.status}.`, body);
    return body as T;
  }

  private post<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
    return this.ask<T>(path, { method, body: JSON.stringify(body) });
  }

  readonly sites = () => this.ask<SiteEntry[]>('sites');
  readonly addSite = (site: { id: string; name: string }) => this.post<SiteEntry>('sites', site);
  readonly board = (query: string) => this.ask<{ total: number; rows: BoardEntry[] }>(`jobs?${query}`);
  readonly profiles = () => this.ask<ProfileEntry[]>('profiles');
  readonly profile = (sha: string) => this.ask<Profile>(`profiles/${sha}`);
  readonly job = (id: string) => this.ask<{ job: Job; revision: number; archived: boolean }>(`jobs/${id}`);
  readonly addJob = (job: Job) => this.post<{ revision: number }>('jobs', { job });
  readonly copyJob = (id: string, to: { id: string; tag: string }) => this.post<{ id: string }>(`jobs/${id}/copy`, to);
  readonly archiveJob = (id: string, archived: boolean) => this.post(`jobs/${id}/archive`, { archived });
  readonly importFile = (data: unknown) => this.post<{ id: string; copied: boolean }>('import', data);
  readonly change = (id: string, change: { id: string; base: number; patch: unknown; author: unknown; atClient: string }) =>
    this.post<{ revision: number }>(`jobs/${id}/changes`, change);
  readonly changesAfter = (id: string, revision: number) => this.ask<ServerChange[]>(`jobs/${id}/changes?after=${revision}`);
  readonly evidence = (id: string) => this.ask<Evidence[]>(`jobs/${id}/evidence`);
  readonly addEvidence = (id: string, list: readonly Evidence[]) => this.post<Evidence[]>(`jobs/${id}/evidence`, list);
}
