import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import { v4 as uuid } from 'uuid';
import { Preferences } from '../frame/preferences';
import { Api, type Present } from './api';
import { Keeping } from './keeping';

/** A window says again that it is there, ms: well before it is forgotten. */
const AGAIN_MS = 25_000;

const KEY = 'tactron.window';

function windowId(): string {
  const known = sessionStorage.getItem(KEY);
  if (known) return known;
  const made = uuid();
  sessionStorage.setItem(KEY, made);
  return made;
}

/** Who else has the open job open, and where. It warns and never locks. */
@Injectable({ providedIn: 'root' })
export class PresenceHere {
  private readonly api = inject(Api);
  private readonly preferences = inject(Preferences);
  private readonly keeping = inject(Keeping);
  /** The same for a tab however often it is loaded anew. */
  private readonly window = windowId();
  private readonly place = signal<{ readonly jobId: string; readonly at: string } | null>(null);
  private readonly known = signal<{ readonly jobId: string; readonly present: readonly Present[] }>(
    {
      jobId: '',
      present: [],
    },
  );
  /** Everybody else at the job that is open here. */
  readonly others = computed(() => {
    const { jobId, present } = this.known();
    return this.place()?.jobId === jobId ? present.filter((p) => p.window !== this.window) : [];
  });

  constructor() {
    let before: { readonly jobId: string; readonly at: string } | null = null;
    effect(() => {
      const now = this.place();
      if (before && before.jobId !== now?.jobId) void this.say(before, true);
      before = now;
      if (now) void this.say(now);
    });
    const beat = setInterval(() => {
      const now = this.place();
      if (now && document.visibilityState === 'visible') void this.say(now);
    }, AGAIN_MS);
    const away = (): void => {
      const now = this.place();
      if (now) void this.say(now, true);
    };
    addEventListener('pagehide', away);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(beat);
      removeEventListener('pagehide', away);
    });
  }

  /** @param at stage that is shown; nothing where no job is open */
  here(jobId: string, at: string): void {
    const now = this.place();
    if (now?.jobId !== jobId || now.at !== at) this.place.set({ jobId, at });
  }

  left(): void {
    this.place.set(null);
  }

  /** What the server says of the job. */
  heard(jobId: string, present: readonly Present[]): void {
    this.known.set({ jobId, present });
  }

  private async say({ jobId, at }: { jobId: string; at: string }, gone = false): Promise<void> {
    const me = this.keeping.me();
    const name = (me?.accounts ? me.name : this.preferences.author()?.name) ?? 'somebody';
    try {
      const told = { window: this.window, name, at: at || 'job', ...(gone ? { gone } : {}) };
      const { present } = await this.api.tellPresent(jobId, told);
      if (!gone) this.heard(jobId, present);
    } catch {
      // Without the server nobody else is seen; nothing depends on it.
    }
  }
}
