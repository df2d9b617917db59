import type { Profile } from './profile.js';
import type { Value } from './roles.js';

type Values = Readonly<Record<string, Value>>;

/** One arrangement of settings that the device keys by itself: what it sets, and what it sets back to the factory's values. */
export interface ReadyMade {
  readonly key: string;
  readonly name: string;
  /** Setting that brings it about, and its value for this arrangement. */
  readonly code: string;
  readonly value: Value;
  readonly sets: Values;
  readonly wipes: readonly string[];
}

/**
 * The ready-made arrangements of a device, each with the setting that brings it about.
 *
 * @returns none where the device has none, or no setting that names them
 * @example readyMades(shippedProfile('ondulet-n')).map((m) => m.name) // ['two-wire', 'three-wire', 'jog panel']
 */
export function readyMades({ macros, settings }: Profile): ReadyMade[] {
  const code = Object.keys(settings).find(
    (id) =>
      settings[id].wipes !== undefined &&
      Object.keys(macros).some((key) => settings[id].choices?.[key] !== undefined),
  );
  if (code === undefined) return [];
  const numeric = typeof settings[code].factory === 'number';
  return Object.entries(macros).map(([key, { name, sets, wipes }]) => ({
    key,
    name,
    code,
    value: numeric ? Number(key) : key,
    sets,
    wipes,
  }));
}

/**
 * What a device holds after a value was keyed into it: a ready-made arrangement sets and wipes others and goes back to none, a
 * setting that wipes takes others with it, one that undoes an identification run takes its results.
 *
 * @param factory values that what is wiped goes back to
 * @example keyedInto(profile, factory, held, 'Z/00', 2)['M/03'] // the factory's
 */
export function keyedInto(
  profile: Profile,
  factory: Values,
  held: Values,
  code: string,
  value: Value,
): Record<string, Value> {
  const back = (codes: readonly string[]): Record<string, Value> =>
    Object.fromEntries(
      codes.flatMap((of) => (factory[of] === undefined ? [] : [[of, factory[of]]])),
    );
  const { results = [], voids = [] } = profile.identification ?? {};
  const undone = (codes: readonly string[]): Record<string, Value> =>
    codes.some((of) => voids.includes(of)) ? back(results) : {};
  const made = readyMades(profile).find((m) => m.code === code && m.value === value);
  if (made)
    return {
      ...held,
      ...back(made.wipes),
      ...undone([...made.wipes, ...Object.keys(made.sets)]),
      ...made.sets,
      ...back([code]),
    };
  const wiped = value === factory[code] ? [] : (profile.settings[code]?.wipes ?? []);
  return { ...held, ...back(wiped), ...undone([code, ...wiped]), [code]: value };
}
