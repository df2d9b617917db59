import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { Api, ApiError, CLOCK_TOLERANCE_S, type Me } from './api';
import { Courier } from './courier';
import { Desk } from './desk';
import { LocalStore, type LostJob } from './local-store';
import {
  isLeaving,
  isUnknown,
  knownMe,
  NOBODY,
  noteLeaving,
  noteMe,
  noteOwner,
  OWNER_HERE,
  storeName,
  type Owner,
} from './owner';
import { moveStore, type SetAside } from './shelf';

/** How long after it did not answer the server is told again that somebody signed out, ms. */
const RETRY_MS = 5000;

/** How this browser stands towards keeping work: what it can, what it could not, who it is taken for. */
@Injectable({ providedIn: 'root' })
export class Keeping {
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly courier = inject(Courier);
  private readonly desk = inject(Desk);
  private readonly updates = inject(SwUpdate);

  /** Tells the other windows of this browser whose work is shown. */
  private readonly windows =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('tactron.owner');
  /** Over plain HTTP from another machine a browser keeps no application: without network nothing opens. */
  readonly plainHttp = !isSecureContext;
  readonly lost = signal<readonly LostJob[]>([]);
  readonly aside = signal<readonly SetAside[]>([]);
  readonly newRelease = signal(false);
  readonly me = signal<Me | null>(knownMe());
  /** The browser has promised not to throw this site's data away by itself. */
  readonly persistent = signal<boolean | null>(null);
  readonly full = this.local.unkept;
  readonly signInNeeded = this.api.signInNeeded;
  readonly otherRelease = this.api.otherRelease;
  private readonly owner = inject(OWNER_HERE);
  readonly unreached = this.courier.unreached;
  readonly readOnly = computed(() => {
    const me = this.me();
    return me?.accounts === true && me.role === 'reader' && !me.administrator;
  });
  /** How this device's clock differs from the server's, in words; null within two minutes. */
  readonly clock = computed(() => {
    const s = this.api.clockAheadS();
    return Math.abs(s) > CLOCK_TOLERANCE_S
      ? `${howLong(Math.abs(s))} ${s > 0 ? 'ahead of' : 'behind'}`
      : null;
  });

  constructor() {
    // Somebody else signed in, in another window or since: this one begins anew with that person's work.
    effect(() => {
      if (this.api.otherAccount()) void this.whoAmI();
    });
  }

  /** Looks once at what is here and who is asking, and sends what waits. */
  async begin(): Promise<void> {
    if (isLeaving() && !(await this.leave(false)))
      return void setTimeout(() => void this.begin(), RETRY_MS);
    this.windows?.addEventListener('message', ({ data }: MessageEvent<Owner>) => {
      if (data !== this.owner) location.reload();
    });
    this.updates.versionUpdates.subscribe(
      (event) => event.type === 'VERSION_READY' && this.newRelease.set(true),
    );
    this.courier.news.subscribe(
      (news) => (news.kind === 'refused' || news.kind === 'unrecorded') && void this.lookAside(),
    );
    this.lost.set(await this.local.lost());
    await this.lookAside();
    this.persistent.set((await navigator.storage?.persist?.().catch(() => false)) ?? null);
    await this.whoAmI();
    if (this.owner !== NOBODY) void this.courier.run();
    // So that a new job can be made where there is no network, whichever page was opened first.
    await this.desk.readAhead().catch(() => undefined);
  }

  async whoAmI(): Promise<void> {
    const me = await this.api.me().catch(() => null);
    if (!me) return;
    const owner = me.accounts ? me.id : '';
    if (owner !== this.owner && (await this.become(owner))) return;
    noteOwner(owner);
    noteMe(me);
    this.me.set(me);
  }

  /** This browser shows another person's work from now on: every window begins anew with that person's store. */
  private async become(owner: Owner): Promise<boolean> {
    // A release that told nobody apart kept everything in one store: it was sent under whoever signed in next.
    if (isUnknown() && owner) await moveStore(storeName(''), storeName(owner));
    if (!noteOwner(owner)) return false;
    noteMe(null);
    this.windows?.postMessage(owner);
    location.reload();
    return true;
  }

  async signIn(login: string, password: string): Promise<void> {
    await this.api.signIn(login, password);
    await this.signedIn();
  }

  async signedIn(): Promise<void> {
    this.api.signInNeeded.set(false);
    await this.whoAmI();
    void this.courier.run();
  }

  /** What the person who signs out leaves here unsent, in words; empty when everything has arrived. */
  async leftBehind(): Promise<string> {
    const { changes, records } = await this.local.unsent();
    const several = (n: number, one: string): string =>
      n === 0 ? '' : `${n} ${one}${n === 1 ? '' : 's'}`;
    return [several(changes, 'change'), several(records, 'reading or other record')]
      .filter(Boolean)
      .join(' and ');
  }

  /** Hides this person's work at once; what is unsent stays for them. The server hears of it now, or as soon as it answers. */
  async signOut(everywhere: boolean): Promise<void> {
    this.courier.rest();
    noteLeaving(true);
    await this.leave(everywhere);
    await this.become(NOBODY);
  }

  /** @returns whether this window may go on: the server has heard it, or nothing is shown anyway */
  private async leave(everywhere: boolean): Promise<boolean> {
    try {
      await (everywhere ? this.api.signOutEverywhere() : this.api.signOut());
      noteLeaving(false);
    } catch (error) {
      // Nobody is signed in any more: that is what was asked for.
      if (error instanceof ApiError && error.status === 401) noteLeaving(false);
    }
    if (this.owner === NOBODY && isLeaving()) this.api.signInNeeded.set(true);
    return !isLeaving();
  }

  forgetLost(): void {
    this.local.forgetLost();
    this.lost.set([]);
  }

  async forgetAside(id: string): Promise<void> {
    await this.local.forgetAside(id);
    await this.lookAside();
  }

  private async lookAside(): Promise<void> {
    this.aside.set(await this.local.aside());
  }
}

/** A span of time as a person says it: 3 min, 5 h, 2 days. */
export function howLong(seconds: number): string {
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  if (seconds < 2 * 86_400) return `${Math.round(seconds / 3600)} h`;
  return `${Math.round(seconds / 86_400)} days`;
}
