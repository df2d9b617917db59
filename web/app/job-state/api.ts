import { Injectable, inject, signal } from '@angular/core';
import {
  JOB_VERSION,
  type Author,
  type Evidence,
  type Job,
  type Origin,
  type Proof,
  type Seal,
  type SiteDocument,
} from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import type { PendingChange, ServerChange } from './job.model';
import { OWNER_HERE } from './owner';
import { chainedPart, inChain, mergedEvidence } from './rebase';

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
  /** Issue of the record that every role has signed; null while it is worked on, absent where that is not known. */
  readonly closed?: number | null;
  /** What of it the search was found in, a line each. */
  readonly found?: readonly string[];
  readonly job: Pick<Job, 'tag' | 'machine' | 'profile' | 'plate' | 'scheme' | 'practice'> & {
    readonly adopted: boolean;
  };
}

/** Somebody who has a job open: which window, who, at which stage. */
export interface Present {
  readonly window: string;
  readonly name: string;
  readonly at: string;
}

/** Who the server takes this browser's person for; without accounts the name and role typed here stand. */
export type Me =
  | { readonly accounts: false }
  | {
      readonly accounts: true;
      readonly id: string;
      readonly name: string;
      readonly trade: string;
      readonly role: 'reader' | 'electrician' | 'supervisor';
      readonly administrator: boolean;
      readonly sites: 'all' | readonly string[];
    };

export interface AccountEntry {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly trade: string;
  readonly role: 'reader' | 'electrician' | 'supervisor';
  readonly administrator: boolean;
  readonly disabled: boolean;
  readonly sites: readonly string[];
}

export interface AuditLine {
  readonly at: string;
  readonly name: string;
  readonly act: string;
  readonly detail: string;
}

export interface HistoryLine {
  readonly revision: number;
  readonly kind: 'edit' | 'checkpoint';
  readonly label: string;
  readonly author: Author;
  readonly atClient: string;
  readonly atServer: string;
  readonly clockAheadS: number | null;
  readonly sentBy: string | null;
  readonly places: readonly string[];
}

/** What became of a file that was read in. */
export interface Imported {
  readonly id: string;
  readonly copied: boolean;
  readonly evidence: number;
  readonly proof: Proof;
  readonly server: string | null;
  readonly sealed: number;
}

export interface InvitationEntry {
  readonly id: string;
  readonly role: string;
  readonly sites: readonly string[];
  readonly createdAt: string;
  readonly expiresAt: string;
  readonly state: 'open' | 'used' | 'revoked' | 'old';
}

const SILENT = 'The server does not answer.';

/** Problems that concern one thing that was sent: sending it again would be refused again. */
const TAKEN = ['changeTaken', 'evidenceTaken', 'closed'].map(
  (type) => `urn:tactron:problem:${type}`,
);

/** Whether something was refused for good. */
export const isForGood = ({ status, body }: ApiError): boolean =>
  [400, 403, 413, 422].includes(status) || TAKEN.includes(String(body['type']));

/** Clocks that differ by more than this are told of. */
export const CLOCK_TOLERANCE_S = 120;

/** The server's interface. */
@Injectable({ providedIn: 'root' })
export class Api {
  /** Seconds by which this device's clock is ahead of the server's. */
  readonly clockAheadS = signal(0);
  /** The server wants somebody to sign in. */
  readonly signInNeeded = signal(false);
  /** Somebody else is signed in than the one whose work this window holds. */
  readonly otherAccount = signal(false);
  private readonly owner = inject(OWNER_HERE);
  /** The server has moved to another release than this window. */
  readonly otherRelease = signal(false);

  private async ask<T>(path: string, init?: RequestInit): Promise<T> {
    let answer: Response;
    const headers = new Headers(init?.headers);
    if (init?.body && !headers.has('content-type')) headers.set('content-type', 'application/json');
    headers.set('x-clock', new Date().toISOString());
    headers.set('x-format', String(JOB_VERSION));
    headers.set('x-account', this.owner);
    try {
      answer = await fetch(`/api/${path}`, {
        ...init,
        headers,
        signal: init?.signal ?? AbortSignal.timeout(init?.method === 'PUT' ? 120_000 : 15_000),
      });
    } catch {
      throw new ApiError(0, SILENT);
    }
    // The service worker, or whatever stands before the server, answers in its place.
    if (
      (answer.status === 502 || answer.status === 504) &&
      !answer.headers.get('content-type')?.includes('problem')
    )
      throw new ApiError(0, SILENT);
    // An answer that was kept somewhere tells the time at which it was kept.
    const now = answer.headers.get('cache-control')?.includes('no-store')
      ? Date.parse(answer.headers.get('date') ?? '')
      : NaN;
    if (Number.isFinite(now)) this.clockAheadS.set(Math.round((Date.now() - now) / 1000));
    const body = (await answer.json().catch(() => ({}))) as Record<string, unknown>;
    if (answer.status === 401 && body['type'] === 'urn:tactron:problem:signIn')
      this.signInNeeded.set(true);
    if (answer.status === 409 && body['type'] === 'urn:tactron:problem:reload')
      this.otherRelease.set(true);
    if (answer.status === 409 && body['type'] === 'urn:tactron:problem:otherAccount')
      this.otherAccount.set(true);
    if (!answer.ok)
      throw new ApiError(
        answer.status,
        typeof body['title'] === 'string' ? body['title'] : `The server answered ${answer.status}.`,
        body,
      );
    return body as T;
  }

  private post<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
    return this.ask<T>(path, { method, body: JSON.stringify(body) });
  }

  readonly sites = () => this.ask<SiteEntry[]>('sites');
  readonly addSite = (site: { id: string; name: string }) => this.post<SiteEntry>('sites', site);
  readonly board = (query: string) =>
    this.ask<{ total: number; rows: BoardEntry[] }>(`jobs?${query}`);
  readonly profiles = () => this.ask<ProfileEntry[]>('profiles');
  readonly profile = (sha: string) => this.ask<Profile>(`profiles/${sha}`);
  readonly job = (id: string) =>
    this.ask<{ job: Job; revision: number; archived: boolean }>(`jobs/${id}`);
  readonly addJob = (job: Job, author: Author, atClient: string) =>
    this.post<{ revision: number }>('jobs', { job, author, atClient });
  readonly copyJob = (id: string, to: { id: string; tag: string; author?: Author }) =>
    this.post<{ id: string }>(`jobs/${id}/copy`, to);
  readonly archiveJob = (id: string, archived: boolean) =>
    this.post(`jobs/${id}/archive`, { archived });
  readonly importFile = (data: unknown, author: Author) =>
    this.ask<Imported>('import', {
      method: 'POST',
      body: data instanceof Blob ? data : JSON.stringify(data),
      headers: {
        'x-author': encodeURIComponent(JSON.stringify(author)),
        ...(data instanceof Blob ? { 'content-type': 'application/zip' } : {}),
      },
      signal: AbortSignal.timeout(30 * 60_000),
    });
  readonly change = (
    id: string,
    c: Pick<PendingChange, 'id' | 'patch' | 'label' | 'author' | 'atClient'> & {
      readonly base: number;
    },
  ) =>
    this.post<{ revision: number; since?: ServerChange[] }>(`jobs/${id}/changes`, {
      id: c.id,
      base: c.base,
      patch: c.patch,
      label: c.label,
      author: c.author,
      atClient: c.atClient,
    });
  readonly changesAfter = (id: string, revision: number) =>
    this.ask<ServerChange[]>(`jobs/${id}/changes?after=${revision}`);
  /** Evidence of a job; only what is not known yet travels. */
  readonly evidence = async (
    id: string,
    known: readonly Evidence[] = [],
  ): Promise<readonly Evidence[]> => {
    const { after, hash } = chainedPart(known);
    const rest = await this.ask<{ after: number; evidence: Evidence[] }>(
      `jobs/${id}/evidence?after=${after}&hash=${hash}`,
    );
    return rest.after > 0
      ? mergedEvidence(inChain(known, rest.after), rest.evidence)
      : rest.evidence;
  };
  readonly origins = (id: string) => this.ask<Origin[]>(`jobs/${id}/evidence/origins`);
  readonly siteDocument = (siteId: string) =>
    this.ask<{ document: SiteDocument; revision: number }>(`sites/${siteId}/document`);
  readonly putSiteDocument = (
    siteId: string,
    base: number,
    document: SiteDocument,
    author: Author,
  ) =>
    this.post<{ revision: number }>(
      `sites/${siteId}/document`,
      { base, document, author, atClient: new Date().toISOString() },
      'PUT',
    );
  readonly seal = (id: string) => this.ask<Seal>(`jobs/${id}/seal`);
  readonly addEvidence = (id: string, list: readonly Evidence[]) =>
    this.post<Evidence[]>(`jobs/${id}/evidence`, list);
  /** What is found of a job at a revision, so that the board finds it by that. */
  readonly tellFindings = (id: string, revision: number, findings: readonly string[]) =>
    this.post(`jobs/${id}/findings`, { revision, findings }, 'PUT');
  /** Tells who has a job open here, and hears who else has. */
  readonly tellPresent = (id: string, said: Present & { readonly gone?: boolean }) =>
    this.ask<{ present: Present[] }>(`jobs/${id}/presence`, {
      method: 'POST',
      body: JSON.stringify(said),
      // The last word of a window goes out while it closes.
      keepalive: true,
    });
  readonly putFile = (sha256: string, type: string, body: Blob) =>
    this.ask(`files/${sha256}`, { method: 'PUT', body, headers: { 'content-type': type } });
  readonly history = (id: string, before?: number) =>
    this.ask<HistoryLine[]>(`jobs/${id}/history${before === undefined ? '' : `?before=${before}`}`);
  readonly jobAt = (id: string, revision: number) => this.ask<Job>(`jobs/${id}/at/${revision}`);
  readonly me = () => this.ask<Me>('me');
  readonly signIn = (login: string, password: string) =>
    this.post<{ name: string }>('session/sign-in', { login, password });
  readonly signOut = () => this.post('session/sign-out', {});
  readonly changePassword = (before: string, password: string) =>
    this.post('accounts/password', { before, password });
  readonly signOutEverywhere = () => this.post('accounts/sign-out-everywhere', {});
  readonly invitation = (token: string) =>
    this.ask<{ role: string; sites: string[] }>(`session/invitations/${encodeURIComponent(token)}`);
  readonly acceptInvitation = (token: string, person: unknown) =>
    this.post(`session/invitations/${encodeURIComponent(token)}/accept`, person);
  readonly invite = (role: string, sites: readonly string[]) =>
    this.post<{ token: string }>('accounts/invitations', { role, sites });
  readonly invitations = () => this.ask<InvitationEntry[]>('accounts/invitations');
  readonly revokeInvitation = (id: string) => this.post(`accounts/invitations/${id}/revoke`, {});
  readonly accounts = () => this.ask<AccountEntry[]>('accounts');
  readonly changeAccount = (id: string, change: unknown) =>
    this.post(`accounts/${id}`, change, 'PATCH');
  readonly signOutAccount = (id: string) => this.post(`accounts/${id}/sign-out`, {});
  readonly audit = () => this.ask<AuditLine[]>('accounts/audit');
}
