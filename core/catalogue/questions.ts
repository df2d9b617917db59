import type { Model, Profile, Terminal } from './profile.js';
import { factoryValue, settingForRole, type SettingValues, type Value } from './roles.js';
import { sortedEntries } from '../job/index.js';

const fixed = new WeakMap<Profile['rows'], readonly string[]>();

/** Terminals that are there: those of fixed rows, and of option rows whose option is fitted. */
export function presentTerminals(
  { rows }: Profile,
  options: readonly string[] = [],
): readonly string[] {
  const known = options.length === 0 ? fixed.get(rows) : undefined;
  if (known) return known;
  const made = rows
    .filter((row) => !row.option || options.includes(row.option))
    .flatMap((row) => row.terminals);
  if (options.length === 0) fixed.set(rows, made);
  return made;
}

/**
 * Whether the motor gets the frequency of the supply: a device that only lowers its voltage. It has no link, reflects no
 * edges into the cable and takes from the supply what the motor takes.
 */
export const keepsLineFrequency = (profile: Profile | undefined): boolean =>
  profile?.kind === 'starter';

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

/** Terminals between which a braking resistor lies; undefined where the device has none. */
export function resistorTerminals(profile: Profile): readonly [string, string] | undefined {
  const [one, other] = presentTerminals(profile).filter((id) => {
    const t = profile.terminals[id];
    return t.kind === 'power' && t.purpose === 'brakeResistor';
  });
  return one !== undefined && other !== undefined ? [one, other] : undefined;
}

/** Value by which the device knows a task; undefined where it has no such task. */
export function taskCode(profile: Profile, task: string): string | number | undefined {
  return Object.values(profile.inputTasks).find((t) => t.meaning === task)?.code;
}

/** All settings as the device leaves the factory. */
export function factorySettings(profile: Profile, model: Model): Record<string, Value> {
  return Object.fromEntries(
    Object.keys(profile.settings).map((code) => [code, factoryValue(profile, model, code)]),
  );
}

/** Why a setting cannot hold a value. */
export type SettingRefusal = 'unknown' | 'choice' | 'number' | 'range';

/**
 * Whether a device can be set so at all: it has the setting, the choice is one of its own, the number lies within its ends.
 *
 * @returns undefined where it can
 * @example settingRefuses(profile, '212', 99_999) // 'range'
 */
export function settingRefuses(
  { settings }: Profile,
  code: string,
  value: Value,
): SettingRefusal | undefined {
  if (!Object.hasOwn(settings, code)) return 'unknown';
  const { choices, type, min, max } = settings[code];
  if (choices) return Object.hasOwn(choices, String(value)) ? undefined : 'choice';
  if (type !== 'number' && type !== 'dial') return undefined;
  if (typeof value !== 'number' || !Number.isFinite(value)) return 'number';
  return value < (min ?? -Infinity) || value > (max ?? Infinity) ? 'range' : undefined;
}

/** Values that a device can hold; the others it would not take, and keeps what it has. */
export const settingsItTakes = (
  profile: Profile,
  values: Readonly<Record<string, Value>>,
): Record<string, Value> =>
  Object.fromEntries(
    Object.entries(values).filter(([code, value]) => !settingRefuses(profile, code, value)),
  );

/** Settings in force: the factory's, overlaid with what is planned and what the device takes of it. */
export function settingsInForce(
  profile: Profile,
  model: Model,
  planned: Readonly<Record<string, { readonly value: Value }>>,
): Record<string, Value> {
  const values = Object.entries(planned).map(([code, { value }]) => [code, value] as const);
  return {
    ...factorySettings(profile, model),
    ...settingsItTakes(profile, Object.fromEntries(values)),
  };
}

/** Model of a profile by its name. */
export const modelOf = (profile: Profile, name: string): Model | undefined =>
  profile.models.find((m) => m.name === name);

/** Relay of the device with its terminals and the tasks it can be given. */
export interface RelayTerminals {
  readonly id: string;
  readonly common?: string;
  readonly no: readonly string[];
  readonly nc: readonly string[];
  readonly tasks: readonly string[];
  /** What its contacts may switch, A. */
  readonly amps: number;
}

/** Relays of a device in the order in which their terminals lie. */
export function relaysOf(profile: Profile): RelayTerminals[] {
  const relays = new Map<string, { common?: string; no: string[]; nc: string[]; amps: number }>();
  for (const id of presentTerminals(profile)) {
    const t = profile.terminals[id];
    if (t.kind !== 'relay') continue;
    const relay = relays.get(t.relay) ?? { no: [], nc: [], amps: t.amps };
    if (t.part === 'common') relay.common = id;
    else relay[t.part].push(id);
    relays.set(t.relay, relay);
  }
  return [...relays].map(([id, ends]) => ({
    id,
    ...ends,
    tasks: Object.values(valuesOf(profile, `relay.${id}.task`)),
  }));
}

/** Meanings of a role by the value keyed; none where it is fixed or unknown. */
function valuesOf(profile: Profile, role: string): Readonly<Record<string, string>> {
  const policy = profile.roles[role];
  return typeof policy === 'object' && 'values' in policy
    ? (policy.values as Record<string, string>)
    : {};
}

/** What a role that is set by one of several values is set to; `none` where it cannot be set. */
export function taskOf(profile: Profile, settings: SettingValues, role: string): string {
  const policy = profile.roles[role];
  if (typeof policy !== 'object' || !('setting' in policy)) return 'none';
  return valuesOf(profile, role)[String(settings[policy.setting as string])] ?? 'none';
}

/** A terminal that a contact of the station gives a task, whatever voltage switches it. */
export const isInput = (profile: Profile, terminal: string): boolean => {
  const kind = profile.terminals[terminal]?.kind;
  return kind === 'digitalInput' || kind === 'acInput';
};

/** What the contacts of the station are fed from: the device's own 24 V, or the supply of its control. */
export type ControlFeed = 'own' | 'alternating' | 'direct24';

/** Control supply of a device, by its terminals. */
export function controlFeed(profile: Profile): ControlFeed {
  const pole = firstOfKind(profile, 'controlSupply');
  if (pole === undefined) return 'own';
  const t = profile.terminals[pole];
  return t.kind === 'controlSupply' && t.alternating ? 'alternating' : 'direct24';
}

/** The device turns its motor at other speeds than that of the supply. */
export const changesSpeed = (profile: Profile): boolean => profile.kind === 'drive';

/** What inside the device can fail so that the motor is fed unasked, or not at all. */
export function insideFailures(
  profile: Profile,
): readonly ('poleShorted' | 'poleDead' | 'bypassWelded')[] {
  if (!keepsLineFrequency(profile)) return [];
  const bypass = profile.policies['bypass'];
  const none = typeof bypass === 'object' && 'fixed' in bypass && bypass.fixed === 'none';
  return none ? ['poleShorted', 'poleDead'] : ['poleShorted', 'poleDead', 'bypassWelded'];
}

/** It can raise the torque of its motor evenly instead of the voltage. */
export const rampsTorque = (profile: Profile): boolean =>
  settingForRole(profile, 'rampKind', 'torque') !== undefined;

/** Its poles can lie in series with the windings of its motor. */
export const goesInsideDelta = (profile: Profile): boolean =>
  settingForRole(profile, 'connectionKind', 'insideDelta') !== undefined;

/** Link that stands in place of a thermistor, with its position that joins the two terminals and the one that leaves them. */
export function sensorLink(
  profile: Profile,
): { readonly link: string; readonly joined: string; readonly open: string } | undefined {
  const ends = presentTerminals(profile).filter(
    (id) => profile.terminals[id].kind === 'thermistor',
  );
  if (ends.length < 2) return undefined;
  for (const [link, { positions }] of sortedEntries(profile.links)) {
    const joins = (p: string): boolean =>
      positions[p].joins.some((pair) => ends.every((end) => pair.includes(end)));
    const joined = Object.keys(positions).find(joins);
    const open = Object.keys(positions).find((p) => !joins(p));
    if (joined !== undefined && open !== undefined) return { link, joined, open };
  }
  return undefined;
}

/** The device has keys of its own; one with dials and switches only has none. */
export const hasKeys = ({ keypad }: Profile): boolean => keypad.style !== 'dialsAndSwitches';

/** The device shows words or digits; otherwise it has lights at most. */
export const showsWords = ({ display }: Profile): boolean =>
  display === undefined || Object.values(display.states).some(({ text }) => text !== '');

/** The device has a supply of its own for its control, apart from its mains. */
export const hasControlSupply = (profile: Profile): boolean =>
  firstOfKind(profile, 'controlSupply') !== undefined;

/**
 * Terminals at which the voltage of the DC link is measured, plus first. A device with a braking chopper has the terminals of
 * its resistor there instead, which do not show it.
 *
 * @returns nothing where the device brings the link to no terminals
 * @example linkTerminals(shippedProfile('marrowick-f')) // ['D+', 'D-']
 */
export function linkTerminals(profile: Profile): readonly [string, string] | readonly [] {
  const named = (end: string): string | undefined =>
    Object.entries(profile.terminals).find(
      ([id, t]) => t.kind === 'power' && id.endsWith(end),
    )?.[0];
  const [plus, minus] = [named('+'), named('-')];
  return plus && minus && profile.chopperV === undefined ? [plus, minus] : [];
}

/** Terminals of a device for protective conductors, of supply and motor, in the order in which they are told. */
export const protectiveTerminals = ({ terminals }: Profile): string[] =>
  Object.keys(terminals).filter((id) => {
    const t = terminals[id];
    return (t.kind === 'mains' || t.kind === 'motor') && t.phase === 'PE';
  });
