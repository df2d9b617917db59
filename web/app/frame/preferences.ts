import { Injectable, effect, signal } from '@angular/core';
import type { Author, Job } from '@tactron/core/job';
import {
  formatValue,
  inSystem,
  valueIn,
  type DecimalMark,
  type UnitSystem,
} from '@tactron/core/units';

export type Theme = 'day' | 'plant';

interface Stored {
  theme: Theme;
  decimal: DecimalMark;
  units: UnitSystem;
  practice: Job['practice'];
  family: string;
  author: Author | null;
  singleKeys: boolean;
  pocket: boolean;
  sound: boolean;
  vibration: boolean;
}

const KEY = 'tactron.preferences';

function read(): Stored {
  const fallback: Stored = {
    theme: 'day',
    decimal: '.',
    units: 'metric',
    practice: 'IEC',
    family: 'marrowick-f',
    author: null,
    singleKeys: true,
    pocket: true,
    sound: true,
    vibration: true,
  };
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
  /** Units of reckoned values; what was typed stays as it was typed. */
  readonly units = signal(this.stored.units);
  /** Practice a new job begins with. */
  readonly practice = signal(this.stored.practice);
  /** Device family of the job made last: the next one most likely has the same. */
  readonly family = signal(this.stored.family);
  readonly author = signal(this.stored.author);
  readonly singleKeys = signal(this.stored.singleKeys);
  readonly pocket = signal(this.stored.pocket);
  /** A verdict is heard; a verdict is felt. */
  readonly sound = signal(this.stored.sound);
  readonly vibration = signal(this.stored.vibration);

  /**
   * A reckoned value in the person's units, with the person's decimal mark.
   *
   * @param lengths unit in which the job it belongs to gives its lengths
   */
  value(value: number, unit: string, significant = 4, lengths: 'm' | 'ft' = 'm'): string {
    const shown =
      unit === 'm' && lengths === 'ft'
        ? { value: valueIn({ v: value, u: 'm' }, 'ft', 'length'), unit: 'ft' }
        : inSystem(value, unit, this.units());
    return formatValue(shown.value, shown.unit, significant, this.decimal());
  }

  /** Name and role for what is done outside an open job, where nobody is asked first. */
  signed(): Author {
    return this.author() ?? { name: 'not named', role: '' };
  }

  constructor() {
    effect(() => {
      document.documentElement.dataset['theme'] = this.theme();
      const now: Stored = {
        theme: this.theme(),
        decimal: this.decimal(),
        units: this.units(),
        practice: this.practice(),
        family: this.family(),
        author: this.author(),
        singleKeys: this.singleKeys(),
        pocket: this.pocket(),
        sound: this.sound(),
        vibration: this.vibration(),
      };
      try {
        localStorage.setItem(KEY, JSON.stringify(now));
      } catch {
        // no room: the choice holds until the window is closed
      }
    });
  }
}
