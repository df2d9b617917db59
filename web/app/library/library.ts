import { Component, inject, signal } from '@angular/core';
import type { Profile } from '@tactron/core/catalogue';
import { Compute } from '../compute/compute';
import type { SaidProfile } from '../compute/plan.worker';
import { PlaceStrip } from '../frame/place-strip';
import { Api, type ProfileEntry } from '../job-state/api';

/** Device profiles, to be read: terminals, settings, and how the device behaves where it matters. */
@Component({
  selector: 'tac-library',
  imports: [PlaceStrip],
  templateUrl: './library.html',
  styleUrl: './library.scss',
})
export class Library {
  private readonly api = inject(Api);
  private readonly compute = inject(Compute);
  protected readonly entries = signal<readonly ProfileEntry[] | null>(null);
  protected readonly open = signal<Profile | null>(null);
  /** Terminals and behaviour of the open one in words. */
  protected readonly told = signal<SaidProfile | null>(null);
  protected readonly failed = signal<string | null>(null);

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    try {
      const entries = await this.api.profiles();
      this.entries.set(entries);
      this.failed.set(null);
      const first = entries.find((e) => e.gaps.length === 0);
      if (first) await this.show(first);
    } catch (error) {
      this.failed.set((error as Error).message);
    }
  }

  protected async show(entry: ProfileEntry): Promise<void> {
    const profile = await this.api.profile(entry.sha256);
    this.told.set(await this.compute.profile(profile));
    this.open.set(profile);
  }

  protected settings(profile: Profile) {
    return Object.entries(profile.settings).map(([code, s]) => ({
      code,
      ...s,
      factoryText:
        typeof s.factory === 'object'
          ? 'by model'
          : `${String(s.factory)} ${s.choices?.[String(s.factory)] ?? s.unit}`,
    }));
  }
}
