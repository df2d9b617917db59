import * as v from 'valibot';
import {
  linkTerminals,
  policyValue,
  presentTerminals,
  relaysOf,
  furtherPolicies,
  requiredPolicies,
  roleValue,
  taskOf,
  type Model,
  type Profile,
  type SettingValues,
  type Value,
} from '../catalogue/index.js';
import type { BrakingFacts, DeviceFacts, InstallFacts } from '../motor/index.js';
import type { AnalogueScale } from './analogue.js';
import type { DriveSpec } from './logic.js';
import type { LinkBraking } from './link-rise.js';
import type { DcLink } from './power.js';
import { longestTravelMs } from './ramp.js';
import { controlSchema, type Control } from './vocabulary.js';

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
  for (const name of [...requiredPolicies, ...furtherPolicies]) {
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

/**
 * A drive as its profile, its settings and the plates make it.
 *
 * @param policies behaviour to take where the profile does not know it
 */
export function driveSpecOf(
  profile: Profile,
  model: Model,
  settings: SettingValues,
  facts: InstallFacts,
  policies?: Readonly<Record<string, Value>>,
): { spec: DriveSpec; facts: DeviceFacts } {
  const bare = controlOf(profile, settings, 0, policies);
  const control = { ...bare, coastS: facts.coastS(bare.maxHz) };
  const name = control.referenceSource === 'ai2' ? 'ai2' : 'ai1';
  const inputs = presentTerminals(profile).filter(
    (t) => profile.terminals[t].kind === 'analogueInput',
  );
  const input = name === 'ai2' && inputs.length > 1 ? 1 : 0;
  const { liveZero, scale } = analogueScaleOf(profile, settings, name);
  const used = control.referenceSource === name && inputs.length > 0;
  const spec: DriveSpec = {
    kind: 'drive',
    control,
    link: linkEnergy(profile, model, facts),
    reference: used ? { input, liveZero, scale } : undefined,
    brakeReleaseHz: Number(roleValue(profile, settings, 'brakeReleaseHz') ?? 1.5),
    worksBrake: relaysOf(profile).some(
      ({ id }) => taskOf(profile, settings, `relay.${id}.task`) === 'brakeRelease',
    ),
  };
  const keypadGivesSpeed =
    control.referenceSource === 'keypad' ||
    Object.keys(profile.taskSettings).some((t) => taskOf(profile, settings, t) === 'local');
  return {
    spec,
    facts: {
      travelMs: longestTravelMs(control),
      maxHz: control.maxHz,
      referenceInput: used ? inputs[input] : undefined,
      panelDial: control.referenceSource === 'panelDial',
      keypadHasSpeed: control.keypadHz !== undefined && keypadGivesSpeed,
      filterMs: control.filterMs,
      discrepancyMs: control.channelDiscrepancyMs,
      startHeatPct: 0,
      waitS: 0,
      cutNeedsReset: false,
      assumed: [],
    },
  };
}

/** Energy of the link and what the motor draws from it: P = T·ω, divided by the motor's efficiency. */
function linkEnergy(
  profile: Profile,
  model: Model,
  { lineV, load, braking }: InstallFacts,
): DcLink | undefined {
  if (!profile.link || !model.capacityUF) return undefined;
  const u0 = Math.SQRT2 * lineV;
  const energy = (share: number): number =>
    0.5e-6 * (model.capacityUF ?? 0) * u0 * u0 * (1 - share * share);
  const power = [1, 2, 3].indexOf(load.exponent + 1);
  const coefficients: [number, number, number] = [0, 0, 0];
  coefficients[power] = load.watts / load.atHz ** (power + 1);
  return {
    toThresholdJ: energy(profile.link.thresholdShare as number),
    toDarkJ: energy(profile.link.darkShare as number),
    idleW: profile.link.idleW as number,
    load: coefficients,
    braking: braking && linkBraking(profile, model, u0, load, braking),
  };
}

/** What slowing down does to the link; undefined where the profile does not say at which voltage it trips. */
function linkBraking(
  profile: Profile,
  model: Model,
  usualV: number,
  load: InstallFacts['load'],
  b: BrakingFacts,
): LinkBraking | undefined {
  const { link, linkTripV, chopperV, dischargeS } = profile;
  if (!linkTripV || linkTripV <= usualV) return undefined;
  // A separate unit only works where the device brings its link to terminals.
  const volts = chopperV ?? (linkTerminals(profile).length > 0 ? b.unitV : undefined);
  const perHz = b.radPerHz;
  const helpW: [number, number, number] = [0, 0, 0];
  helpW[load.exponent] = (b.helpNm * perHz) / load.atHz ** load.exponent;
  return {
    massW: b.inertiaKgm2 * perHz * perHz,
    lossW: b.lossNm * perHz,
    helpW,
    idleW: (link?.idleW as number | undefined) ?? 0,
    capacityF: (model.capacityUF ?? 0) * 1e-6,
    usualV,
    tripV: linkTripV,
    lostV: usualV * ((link?.thresholdShare as number | undefined) ?? 0),
    dischargeS,
    ...(volts && b.resistorOhm
      ? { chopper: { volts, watts: (volts * volts) / b.resistorOhm } }
      : {}),
  };
}
