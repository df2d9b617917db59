import { Component, computed, inject, signal } from '@angular/core';
import { Choice } from '../controls/choice';
import { saveFile } from '../controls/save-file';
import { PlaceStrip } from '../frame/place-strip';
import { Preferences } from '../frame/preferences';
import { Api } from '../job-state/api';
import { Keeping } from '../job-state/keeping';
import type { SetAside } from '../job-state/shelf';
import { AccountsPanel } from './accounts-panel';
import { moment } from '@tactron/core/units';

const option = (value: string, name: string) => ({ value, name });

/** What the person chooses for this browser, how it keeps work, and who the server takes it for. */
@Component({
  selector: 'tac-settings-page',
  imports: [PlaceStrip, Choice, AccountsPanel],
  templateUrl: './settings-page.html',
  styleUrl: './settings-page.scss',
})
export class SettingsPage {
  protected readonly preferences = inject(Preferences);
  protected readonly keeping = inject(Keeping);
  private readonly api = inject(Api);
  protected readonly practices = [option('IEC', 'IEC 60204-1'), option('NFPA', 'NFPA 79')];
  protected readonly units = [option('metric', 'metric'), option('us', 'US customary')];
  protected readonly marks = [option('.', '1.5'), option(',', '1,5')];
  protected readonly themes = [option('day', 'Day'), option('plant', 'Plant room')];
  protected readonly onOff = [option('on', 'on'), option('off', 'off')];
  protected readonly problem = signal('');
  protected readonly said = signal('');
  protected readonly used = signal<string | null>(null);
  protected readonly account = computed(() => {
    const me = this.keeping.me();
    return me?.accounts ? me : null;
  });

  protected readonly clock = moment;

  constructor() {
    void navigator.storage?.estimate?.().then(({ usage = 0, quota = 0 }) => {
      this.used.set(
        `${(usage / 1e6).toFixed(1)} MB of ${quota > 2e9 ? `${(quota / 1e9).toFixed(0)} GB` : `${(quota / 1e6).toFixed(0)} MB`}`,
      );
    });
  }

  protected name(text: string): void {
    const name = text.trim();
    this.preferences.author.set(
      name ? { name, role: this.preferences.author()?.role ?? '' } : null,
    );
  }

  protected role(text: string): void {
    const known = this.preferences.author();
    if (known) this.preferences.author.set({ ...known, role: text.trim() });
  }

  /** What would be left here unsent; asked about once before signing out. */
  protected readonly leaving = signal<{
    readonly everywhere: boolean;
    readonly unsent: string;
  } | null>(null);

  protected async leave(everywhere: boolean): Promise<void> {
    const unsent = await this.keeping.leftBehind();
    if (unsent && !this.leaving()) return this.leaving.set({ everywhere, unsent });
    try {
      await this.keeping.signOut(everywhere);
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  /** A new password for the own account; every other session of it ends. */
  protected async changePassword(event: Event): Promise<void> {
    event.preventDefault();
    const form = event.target as HTMLFormElement;
    const typed = new FormData(form);
    this.problem.set('');
    this.said.set('');
    try {
      await this.api.changePassword(String(typed.get('before')), String(typed.get('password')));
      form.reset();
      this.said.set('The password is changed. Every other session of this account has ended.');
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  protected save(item: SetAside): void {
    saveFile(`${item.tag}-set-aside.json`, JSON.stringify(item, null, 2), 'application/json');
  }

  protected what({ item }: SetAside): string {
    if ('patch' in item) return `change "${item.label}"`;
    return 'kind' in item ? `${item.kind} of ${item.subject}` : `the job ${item.job.tag}`;
  }
}
