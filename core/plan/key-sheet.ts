import { changesSpeed, keyedInto, type Profile, type Value } from '../catalogue/index.js';
import type { Phrase } from '../job/index.js';
import { keyPresses, type KeyPress } from './keystrokes.js';

/** Parts of the keying order; nothing of a later part comes before anything of an earlier one. */
export const keyingParts = [
  'makeSafe',
  'motor',
  'limits',
  'identify',
  'inputs',
  'reference',
  'outputs',
  'protection',
  'handOver',
  'readBack',
] as const;
export type KeyingPart = (typeof keyingParts)[number];

/** One line of the keying sheet: something to do, or a setting to change. */
export interface KeyLine {
  readonly key: string;
  readonly part: KeyingPart;
  /** A hold point in words (`openRunContacts`, `noteAsFound`, `readBack`), or none for a setting. */
  readonly hold?: string;
  readonly code?: string;
  readonly from?: Value;
  readonly to?: Value;
  readonly presses: readonly KeyPress[];
  readonly why: { readonly code: string; readonly args: Readonly<Record<string, Value>> };
  /** What the device says to it, and what to make of that. */
  readonly note?: Phrase;
}

/** The lines of a session while they are put in order, with what the device holds after each. */
export class KeySheet {
  readonly lines: KeyLine[] = [];
  now: Record<string, Value>;

  /** @param factory values that what is wiped goes back to */
  constructor(
    readonly profile: Profile,
    found: Readonly<Record<string, Value>>,
    private readonly factory: Readonly<Record<string, Value>>,
  ) {
    this.now = { ...found };
  }

  hold(part: KeyingPart, name: string, presses: readonly KeyPress[] = []): void {
    this.lines.push({
      key: `hold.${name}`,
      part,
      hold: name,
      presses,
      why: { code: `hold.${name}`, args: changesSpeed(this.profile) ? {} : { fixed: true } },
    });
  }

  /** A line that keys a value; none where the device holds it already. */
  change(
    part: KeyingPart,
    code: string,
    to: Value,
    why: KeyLine['why'],
    { key = code, note }: { readonly key?: string; readonly note?: Phrase | undefined } = {},
  ): void {
    const { profile, now, factory } = this;
    if (now[code] === to) return;
    const presses = keyPresses(profile, code, now[code], to);
    const line: KeyLine = { key, part, code, from: now[code], to, presses, why };
    this.lines.push(note ? { ...line, note } : line);
    this.now = keyedInto(profile, factory, now, code, to);
  }
}
