import { Injectable, effect, signal } from '@angular/core';
import type { Author } from '@tactron/core/job';
import type { DecimalMark } from '@tactron/core/units';

export type Theme = 'day' | 'plant';

interface Stored {
  theme: Theme;
  decimal: DecimalMark;
  author: Author | null;
  singleKeys: boolean;
  pocket: boolean;
}

const KEY = 'tactron.preferences';

function read(): Stored {
  const fallback: Stored = { theme: 'day', decimal: '.', author: null, singleKeys: true, pocket: true };
  try {
    return { ...fallback, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Stored>) };
  } catch {
    return fallback;
  }
}

/** What the person has chosen for this browser: theme, decimal mark, name and role, keys. */
@Injectable({ providedIn: 'root' })
export class Preferences {
  private readonly stored = read();
  readonly theme = signal(this.stored.theme);
  readonly decimal = signal(this.stored.decimal);
  readonly author = signal(this.stored.author);
  readonly singleKeys = signal(this.stored.singleKeys);
  readonly pocket = signal(this.stored.pocket);

  constructor() {
    effect(() => {
      document.documentElement.dataset['theme'] = this.theme();
      const now: Stored = { theme: this.theme(), decimal: this.decimal(), author: this.author(), singleKeys: this.singleKeys(), pocket: this.pocket() };
      localStorage.setItem(KEY, JSON.stringify(now));
    });
  }
}
