import * as v from 'valibot';
import {
  policyValue,
  requiredPolicies,
  roleValue,
  type Profile,
  type SettingValues,
  type Value,
} from '../catalogue/index.js';
import { controlSchema, type AnalogueScale, type Control } from '../drive/index.js';

const numberRoles = [
  'minHz',
  'maxHz',
  'accelS',
  'decelS',
  'accel2S',
  'decel2S',
  'sCurvePct',
  'reverseDeadMs',
  'filterMs',
  'jogHz',
  'jogAccelS',
  'jogDecelS',
  'keypadHz',
  'motorPotHzPerS',
  'dcBrakeS',
  'dcBrakeFromHz',
  'quickStopS',
] as const;

/**
 * The command logic's behaviour under the settings keyed: policies and roles of the profile, read in the words of the
 * control semantics. A policy the profile does not know takes its worst value.
 *
 * @param coastS time in which the free shaft runs down from the highest frequency
 * @param policies values to take in place of the profile's, for policies it does not know
 */
export function controlOf(
  profile: Profile,
  settings: SettingValues,
  coastS: number,
  policies: Readonly<Record<string, Value>> = {},
): Control {
  const control: Record<string, unknown> = {
    filterMs: profile.filterMs,
    powerUpDelayMs: profile.powerUpDelayMs,
    coastS,
  };
  for (const name of requiredPolicies) {
    const value = policies[name] ?? policyValue(profile, settings, name);
    if (value !== undefined) control[name] = value;
  }
  for (const role of numberRoles) {
    const value = roleValue(profile, settings, role);
    if (typeof value === 'number') control[role] = value;
  }
  for (const role of ['commandSource', 'referenceSource'] as const) {
    const value = roleValue(profile, settings, role);
    if (value !== undefined) control[role] = value;
  }
  if (roleValue(profile, settings, 'keepOnPowerOff') === true) control['keepOnPowerOff'] = true;
  const presets: number[] = [];
  for (let i = 1; i <= 15; i++) {
    const value = roleValue(profile, settings, `preset.${i}`);
    if (typeof value !== 'number') break;
    presets.push(value);
  }
  if (presets.length) control['presetsHz'] = presets;
  return v.parse(controlSchema, control);
}

/** Signal range an analogue input is set to, and its scaling. */
export function analogueScaleOf(
  profile: Profile,
  settings: SettingValues,
  input: string,
): { fullScale: number; liveZero: boolean; scale: AnalogueScale } {
  const read = (role: string): Value | undefined =>
    roleValue(profile, settings, `${input}.${role}`);
  const mode = read('mode') ?? '0-10V';
  const [low, high] = mode === '4-20mA' ? [4, 20] : mode === '0-20mA' ? [0, 20] : [0, 10];
  const at = (pct: Value | undefined, fallback: number): number =>
    low + ((typeof pct === 'number' ? pct : fallback) / 100) * (high - low);
  const number = (value: Value | undefined, fallback: number): number =>
    typeof value === 'number' ? value : fallback;
  const xLow = at(read('lowPct'), 0);
  const xHigh = at(read('highPct'), 100);
  const scale = {
    xLow,
    xHigh: xHigh === xLow ? xLow + (high - low) / 1000 : xHigh,
    hzAtLow: number(read('hzAtLow'), 0),
    hzAtHigh: number(read('hzAtHigh'), 50),
  };
  return { fullScale: high, liveZero: mode === '4-20mA', scale };
}
