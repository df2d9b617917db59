import * as v from 'valibot';
import {
  hasControlSupply,
  hasKeys,
  policyValue,
  relaysOf,
  requiredStarterPolicies,
  roleValue,
  taskOf,
  type Model,
  type Profile,
  type SettingValues,
  type Value,
} from '../catalogue/index.js';
import { TRIP_HEAT, type DeviceFacts, type InstallFacts } from '../motor/index.js';
import type { StarterSpec } from './logic.js';
import { planStart, runPoint, type FedMachine } from './plan-run.js';
import type { PlannedRun } from './state.js';
import { starterControlSchema, type StarterControl } from './vocabulary.js';

const numberRoles = [
  'softStopS',
  'endTorquePct',
  'endVoltagePct',
  'inhibitS',
  'reversePauseS',
  'startLimitS',
  'bypassAtPct',
  'mainsMissingS',
  'phaseLossMs',
  'autoResetDelayS',
  'contactorMs',
] as const;

/**
 * The command logic's behaviour under the settings keyed: policies and roles of the profile, read in the words of the
 * vocabulary. A policy the profile does not know takes its worst value.
 *
 * @param policies values to take in place of the profile's, for policies it does not know
 */
export function starterControlOf(
  profile: Profile,
  settings: SettingValues,
  amps: { motorA: number; deviceA: number },
  policies: Readonly<Record<string, Value>> = {},
): StarterControl {
  const control: Record<string, unknown> = { powerUpDelayMs: profile.powerUpDelayMs };
  for (const name of requiredStarterPolicies) {
    const value = policies[name] ?? policyValue(profile, settings, name);
    if (value !== undefined) control[name] = value;
  }
  for (const role of numberRoles) {
    const value = roleValue(profile, settings, role);
    if (typeof value === 'number') control[role] = value;
  }
  for (const role of ['stopKind', 'softStopBy', 'tripClass', 'commandSource'] as const) {
    const value = roleValue(profile, settings, role);
    if (value !== undefined) control[role] = String(value);
  }
  const base = control['limitBase'] === 'deviceAmps' ? amps.deviceA : amps.motorA;
  control['start'] = startOf(profile, settings, base);
  return v.parse(starterControlSchema, control);
}

/** How the voltage comes on under the settings: a ramp at nothing is a direct start. */
function startOf(
  profile: Profile,
  settings: SettingValues,
  baseA: number,
): StarterControl['start'] {
  const number = (role: string): number | undefined => {
    const value = roleValue(profile, settings, role);
    return typeof value === 'number' ? value : undefined;
  };
  const rampS = number('rampS') ?? 0;
  const limitPct = number('limitPct');
  const kickS = number('kickS') ?? 0;
  const more = {
    ...(limitPct ? { limitA: (limitPct / 100) * baseA } : {}),
    ...(kickS > 0 ? { kickS, kickFraction: (number('kickPct') ?? 70) / 100 } : {}),
  };
  const beginPct = number('beginPct') ?? 0;
  if (roleValue(profile, settings, 'rampKind') === 'torque') {
    const torqueLimitPct = number('torqueLimitPct');
    const most = torqueLimitPct ? { torqueLimitPct } : {};
    return {
      kind: 'torqueRamp',
      initialTorquePct: beginPct,
      rampS: Math.max(rampS, 0.1),
      ...most,
      ...more,
    };
  }
  if (rampS === 0 && !more.limitA) return { kind: 'direct' };
  const kind = rampS === 0 ? 'currentLimit' : more.limitA ? 'rampAndLimit' : 'voltageRamp';
  return { kind, fraction: beginPct / 100, rampS, ...more };
}

/** Heat of the image when the start is over, from cold; at its highest where it never is. */
const heatOfStart = (run: PlannedRun): number =>
  runPoint(run, Math.min(run.bypassUs, run.settledUs)).heat;

/** Longest time a start is waited for where it never comes to its end, s. */
const LONGEST_WAIT_S = 120;

/** What does not work inside, of what was found so. */
function brokenBy(failed: InstallFacts['failed'] = []): Pick<StarterSpec, 'broken'> {
  const of = (what: string): number => failed.filter((f) => f === what).length;
  const broken = {
    shorted: of('poleShorted'),
    dead: of('poleDead'),
    bypass: of('bypassWelded') > 0,
  };
  return broken.shorted || broken.dead || broken.bypass ? { broken } : {};
}

/**
 * A soft starter as its profile, its settings and the plates make it.
 *
 * @param policies behaviour to take where the profile does not know it
 */
export function starterSpecOf(
  profile: Profile,
  model: Model,
  settings: SettingValues,
  facts: InstallFacts,
  policies?: Readonly<Record<string, Value>>,
): { spec: StarterSpec; facts: DeviceFacts } {
  const keyed = roleValue(profile, settings, 'motorA');
  const motorA = typeof keyed === 'number' && keyed > 0 ? keyed : model.ratedA;
  const { fed } = facts;
  // Currents are those of the line: inside the delta the device carries them over the root of three.
  const inside = roleValue(profile, settings, 'connectionKind') === 'insideDelta';
  const deviceA = model.ratedA * (inside ? Math.sqrt(3) : 1);
  const machine: FedMachine = { ...fed, motorA, deviceA };
  const control = starterControlOf(profile, settings, machine, policies);
  const run = planStart(control, machine, { rad: 0, heat: 0, t: 0, phases: 3 });
  const lastsUs = Math.min(
    run.bypassUs,
    run.tripUs,
    control.startLimitS * 1e6,
    LONGEST_WAIT_S * 1e6,
  );
  const spec: StarterSpec = {
    kind: 'starter',
    control,
    machine,
    separateControl: hasControlSupply(profile),
    watchesThermistor: roleValue(profile, settings, 'thermistor') === true,
    hasKeys: hasKeys(profile),
    seesShort: profile.faults['shortedPole'] !== undefined,
    ...brokenBy(facts.failed),
    worksContactor: relaysOf(profile).some(
      ({ id }) => taskOf(profile, settings, `relay.${id}.task`) === 'lineContactor',
    ),
  };
  return {
    spec,
    facts: {
      travelMs: Math.ceil(lastsUs / 1000) + 1000 + 1000 * control.softStopS,
      maxHz: (fed.motor.fieldRad * fed.polePairs) / (2 * Math.PI),
      referenceInput: undefined,
      panelDial: false,
      keypadHasSpeed: false,
      filterMs: 0,
      discrepancyMs: 0,
      startHeatPct: (100 * heatOfStart(run)) / TRIP_HEAT,
      waitS: control.inhibitS,
      cutNeedsReset: control.onMainsLostRunning === 'fault' && hasKeys(profile),
      assumed: fed.assumed,
    },
  };
}
