import type { Profile, Terminal } from '../catalogue/index.js';
import { sortedEntries } from '../job/index.js';

/** Terminals that are there: those of fixed rows, and of option rows whose option is fitted. */
export function presentTerminals(profile: Profile, options: readonly string[] = []): string[] {
  return profile.rows
    .filter((row) => !row.option || options.includes(row.option))
    .flatMap((row) => row.terminals);
}

/** The first terminal of a kind, in the order in which they lie on the device. */
export function firstOfKind<K extends Terminal['kind']>(
  profile: Profile,
  kind: K,
): string | undefined {
  return presentTerminals(profile).find((id) => profile.terminals[id].kind === kind);
}

export type ContactsSwitch = 'plus24' | 'zeroVolt';

/** One way of feeding the inputs: what the contacts switch, and the link position it needs. */
export interface InputLogic {
  readonly contactsSwitch: ContactsSwitch;
  readonly links: Readonly<Record<string, string>>;
  /** Common must be wired by hand to this terminal, for devices without a link. */
  readonly wireCommonTo: string | undefined;
}

/** Ways in which the inputs of this device can be driven, the factory's link position first. */
export function inputLogics(profile: Profile): InputLogic[] {
  const plus = firstOfKind(profile, 'supply24');
  const zero = firstOfKind(profile, 'zeroVolt');
  const common = firstOfKind(profile, 'inputCommon');
  const inputs = presentTerminals(profile).map((id) => profile.terminals[id]);
  if (inputs.some((t) => t.kind === 'digitalInput' && t.pullUpTo !== undefined))
    return [{ contactsSwitch: 'zeroVolt', links: {}, wireCommonTo: undefined }];
  if (!common) return [{ contactsSwitch: 'plus24', links: {}, wireCommonTo: undefined }];
  const logics: { logic: InputLogic; factory: boolean }[] = [];
  for (const [link, spec] of sortedEntries(profile.links)) {
    for (const [position, { joins }] of sortedEntries(spec.positions)) {
      const partner = joins.find((pair) => pair.includes(common))?.find((end) => end !== common);
      if (partner !== zero && partner !== plus) continue;
      logics.push({
        logic: {
          contactsSwitch: partner === zero ? 'plus24' : 'zeroVolt',
          links: { [link]: position },
          wireCommonTo: undefined,
        },
        factory: spec.factory === position,
      });
    }
  }
  if (logics.length > 0)
    return logics.sort((x, y) => Number(y.factory) - Number(x.factory)).map((l) => l.logic);
  return [
    { contactsSwitch: 'plus24', links: {}, wireCommonTo: zero },
    { contactsSwitch: 'zeroVolt', links: {}, wireCommonTo: plus },
  ];
}
