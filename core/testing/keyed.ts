import { keyedInto, type Profile, type Value } from '../catalogue/index.js';
import type { KeyLine } from '../plan/index.js';

type Values = Readonly<Record<string, Value>>;

/** What a device holds after a line of the keying sheet: a value keyed, or a motor measured. */
export function afterLine(
  profile: Profile,
  factory: Values,
  held: Values,
  { hold, code, to }: KeyLine,
): Record<string, Value> {
  if (code !== undefined && to !== undefined) return keyedInto(profile, factory, held, code, to);
  const results = hold === 'identify' ? (profile.identification?.results ?? []) : [];
  return { ...held, ...Object.fromEntries(results.map((result) => [result, 0.9])) };
}

/** What a device holds after a whole session. */
export const afterSession = (
  profile: Profile,
  factory: Values,
  held: Values,
  lines: readonly KeyLine[],
): Record<string, Value> =>
  lines.reduce<Record<string, Value>>((now, line) => afterLine(profile, factory, now, line), {
    ...held,
  });
