import type { Model, Policy, Profile } from './profile.js';

export type Value = number | string | boolean;
export type SettingValues = Readonly<Record<string, Value>>;

/** Value a setting has as the device leaves the factory; some depend on the model. */
export function factoryValue(profile: Profile, model: Model, code: string): Value {
  const { factory } = profile.settings[code];
  if (typeof factory !== 'object') return factory;
  if (factory.byModel === 'ratedHz') return profile.supply.hz[0];
  if (factory.byModel === 'ratedKw')
    return model.ratedKw ?? Math.round((model.ratedHp ?? 0) * 74.57) / 100;
  return (factory.byModel === 'ratedA' ? model.ratedA : model.ratedV) as number;
}

/**
 * Worst value of a policy that a profile does not know: what lets a motor move when a person does not expect it, or
 * leaves a stop without effect.
 */
const worst: Record<string, Value> = {
  onPowerReturn: 'followLevel',
  onEnableReturn: 'followLevel',
  onFaultReset: 'followLevel',
  onTakeover: 'followLevel',
  onStartHeld: 'followLevel',
  startEdgeWithStopReturn: 'accepted',
  terminalStopUnderKeypad: 'ignored',
  keypadStopAlways: false,
  onBothDirections: 'firstWins',
  onOppositeStart: 'reverseThroughZero',
  onPlaceChange: 'keepRunning',
  startWhileCoasting: 'catch',
  belowMin: 'clamp',
  onReferenceLoss: 'holdLast',
  bothDirectionsFaultSelfClears: true,
  jogWhileRunning: 'wins',
  onUndervoltageWhileStopping: 'fault',
  presetCoding: 'binary',
  runningAtZero: false,
  noReverse: false,
  stopMode: 'coast',
  startMethod: 'levelForwardReverse',
  onControlReturn: 'followLevel',
  onMainsReturn: 'followLevel',
  onAutoReset: 'followLevel',
  onThermistorCooled: 'followLevel',
  onOverloadCooled: 'followLevel',
  onOppositeEnable: 'waits',
  onRunInInhibit: 'waits',
  onRunWithoutMains: 'blocked',
  onMainsLostRunning: 'coast',
  onCutWhileSoftStopping: 'coast',
  onStopWhileRamping: 'softStop',
  onStartWhileSoftStopping: 'rampFromPresent',
  onStartWhileCoasting: 'rampFromBegin',
  onStartLimit: 'fullVoltage',
  bypassSensed: false,
  thermalMemoryOff: 'cleared',
  faultMemoryOff: 'cleared',
};

/** Meaning of a policy under the settings keyed; undefined where the profile has none, the worst where it is unknown. */
export function policyValue(
  profile: Profile,
  settings: SettingValues,
  name: string,
): Value | undefined {
  const policy = profile.policies[name];
  return policy === 'unknown' ? worst[name] : read(policy, settings);
}

/** Meaning of a role (ramp time, reference source …) under the settings keyed; undefined where the device has none. */
export function roleValue(
  profile: Profile,
  settings: SettingValues,
  role: string,
): Value | undefined {
  const policy = profile.roles[role];
  return policy === 'unknown' ? undefined : read(policy, settings);
}

function read(
  policy: Exclude<Policy, 'unknown'> | undefined,
  settings: SettingValues,
): Value | undefined {
  if (policy === undefined) return undefined;
  if ('fixed' in policy) return policy.fixed as Value;
  const keyed = settings[policy.setting as string];
  if (keyed === undefined) return undefined;
  const values = policy.values as Record<string, Value> | undefined;
  if (values) return values[String(keyed)];
  return typeof keyed === 'number' && typeof policy.scale === 'number'
    ? keyed * policy.scale
    : keyed;
}

/** Code of the setting that plays a role or decides a policy; undefined where it is fixed, unknown or missing. */
export function roleSetting(profile: Profile, name: string): string | undefined {
  const policy = profile.roles[name] ?? profile.policies[name];
  return typeof policy === 'object' && 'setting' in policy ? (policy.setting as string) : undefined;
}

/**
 * Setting and value to key so that a role or policy has a meaning.
 *
 * @returns undefined where no setting can bring it about (fixed otherwise, unknown, or no such value)
 * @example settingForRole(marrowickF, 'onPowerReturn', 'needFreshEdge') // { code: '610', value: 0 }
 */
export function settingForRole(
  profile: Profile,
  name: string,
  meaning: Value,
): { code: string; value: Value } | undefined {
  const policy = profile.roles[name] ?? profile.policies[name];
  if (typeof policy !== 'object' || !('setting' in policy)) return undefined;
  const code = policy.setting as string;
  const values = policy.values as Record<string, Value> | undefined;
  if (!values) {
    const scaled =
      typeof meaning === 'number' && typeof policy.scale === 'number'
        ? meaning / policy.scale
        : meaning;
    return { code, value: scaled };
  }
  const key = Object.keys(values).find((k) => values[k] === meaning);
  if (key === undefined) return undefined;
  const sample = profile.settings[code].factory;
  return {
    code,
    value:
      typeof sample === 'number' && key !== ''
        ? Number(key)
        : typeof sample === 'boolean'
          ? key === 'true'
          : key,
  };
}
