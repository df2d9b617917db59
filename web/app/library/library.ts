import { Component, inject, signal } from '@angular/core';
import type { Profile } from '@tactron/core/catalogue';
import { PlaceStrip } from '../frame/place-strip';
import { Api, type ProfileEntry } from '../job-state/api';

/** Behaviour that a profile tells and nothing simulated depends on: the phases are alike, dials are set before power comes. */
const toldOnly: readonly string[] = ['limitOf', 'dialsRead', 'dialSwitchWins'];

/** Device profiles, to be read: terminals, settings, and how the device behaves where it matters. */
@Component({
  selector: 'tac-library',
  imports: [PlaceStrip],
  templateUrl: './library.html',
  styleUrl: './library.scss',
})
export class Library {
  private readonly api = inject(Api);
  protected readonly entries = signal<readonly ProfileEntry[] | null>(null);
  protected readonly open = signal<Profile | null>(null);
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
    this.open.set(await this.api.profile(entry.sha256));
  }

  protected terminals(profile: Profile) {
    return profile.rows.flatMap((row) =>
      row.terminals.map((id) => ({ ...profile.terminals[id], id, row: row.name })),
    );
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

  protected policies(profile: Profile) {
    return Object.entries(profile.policies).map(([name, p]) => ({
      name,
      text:
        (p === 'unknown'
          ? 'not known: the worse is assumed'
          : 'fixed' in p
            ? String(p.fixed)
            : `setting ${String(p.setting)}`) +
        (toldOnly.includes(name) ? ' · told only: the simulation does not go by it' : ''),
    }));
  }
}
