import { Injectable, computed, inject, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { Api, CLOCK_TOLERANCE_S, type Me } from './api';
import { Courier } from './courier';
import { Desk } from './desk';
import { LocalStore, type LostJob } from './local-store';
import type { SetAside } from './shelf';

/** How this browser stands towards keeping work: what it can, what it could not, who it is taken for. */
@Injectable({ providedIn: 'root' })
export class Keeping {
  private readonly api = inject(Api);
  private readonly local = inject(LocalStore);
  private readonly courier = inject(Courier);
  private readonly desk = inject(Desk);
  private readonly updates = inject(SwUpdate);

  /** Over plain HTTP from another machine a browser keeps no application: without network nothing opens. */
  readonly plainHttp = !isSecureContext;
  readonly lost = signal<readonly LostJob[]>([]);
  readonly aside = signal<readonly SetAside[]>([]);
  readonly newRelease = signal(false);
  readonly me = signal<Me | null>(null);
  /** The browser has promised not to throw this site's data away by itself. */
  readonly persistent = signal<boolean | null>(null);
  readonly full = this.local.unkept;
  readonly signInNeeded = this.api.signInNeeded;
  readonly otherRelease = this.api.otherRelease;
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

  /** Looks once at what is here and who is asking, and sends what waits. */
  async begin(): Promise<void> {
    this.updates.versionUpdates.subscribe(
      (event) => event.type === 'VERSION_READY' && this.newRelease.set(true),
    );
    this.courier.news.subscribe(
      (news) => (news.kind === 'refused' || news.kind === 'unrecorded') && void this.lookAside(),
    );
    this.lost.set(await this.local.lost());
    await this.lookAside();
    this.persistent.set((await navigator.storage?.persist?.().catch(() => false)) ?? null);
    void this.courier.run();
    await this.whoAmI();
    // So that a new job can be made where there is no network, whichever page was opened first.
    await this.desk.readAhead().catch(() => undefined);
  }

  async whoAmI(): Promise<void> {
    const me = await this.api.me().catch(() => null);
    if (me) this.me.set(me);
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

  async signOut(everywhere: boolean): Promise<void> {
    await (everywhere ? this.api.signOutEverywhere() : this.api.signOut());
    this.me.set(null);
    this.api.signInNeeded.set(true);
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
