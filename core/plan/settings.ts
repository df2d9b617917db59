import {
  isInput,
  presentTerminals,
  roleSetting,
  settingForRole,
  taskCode,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import type { Job, Wiring } from '../job/index.js';
import { baseOf, plateNumbers } from '../line/index.js';
import { startMeanings } from './start-values.js';
import type { Arrangement } from '../scheme/index.js';

/** Meanings that nobody asked for in words: whether they matter is found by rehearsing the job. */
const judgedByRun: readonly string[] = ['onFaultReset'];

export type PlannedSettings = Wiring['settings'];

/** A value that is wanted and that its setting does not reach. */
export interface Beyond {
  readonly code: string;
  readonly wanted: number;
  /** Where the setting ends on that side. */
  readonly end: number;
}

/**
 * Values the wishes, the plate and the wiring ask for, each with its reason; then the person's own, which win.
 *
 * @param at terminal by function
 * @param relays relay by output task
 * @returns settings by code, meanings that no setting of this device can bring about, and values beyond the end of theirs
 */
export function planSettings(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  at: Readonly<Record<string, string>>,
  relays: Readonly<Record<string, { readonly id: string }>> = {},
): { settings: PlannedSettings; unmet: { role: string; wish: string }[]; beyond: Beyond[] } {
  const settings: PlannedSettings = {};
  const unmet: { role: string; wish: string }[] = [];
  const put = (code: string, value: Value, why: string, args: Record<string, Value> = {}): void =>
    void (settings[code] = { value, origin: 'plan', why: { code: why, args } });
  for (const [role, value] of Object.entries(plateMeanings(job))) {
    const target = settingForRole(profile, role, value);
    if (target) put(target.code, onStep(profile, target.code, target.value), 'plate', { role });
  }
  for (const { role, value } of startMeanings(job, profile)) {
    const target = settingForRole(profile, role, value);
    if (target)
      put(target.code, onStep(profile, target.code, target.value), 'recommended', { role });
  }
  for (const { role, value, wish } of arrangement.meanings) {
    // A stop that is let go needs no time, where a setting says so.
    if (role === 'softStopS' && value === 0 && settingForRole(profile, 'stopKind', 'coast'))
      continue;
    const target = settingForRole(profile, role, value);
    if (target)
      put(target.code, onStep(profile, target.code, target.value), ...reasonOf(job, role, wish));
    else if (
      !fixedTo(profile, role, value) &&
      !judgedByRun.includes(role) &&
      !coasts(profile, role, value)
    )
      unmet.push({ role, wish });
  }
  for (const { task, wish } of arrangement.outputs) {
    const target = relays[task] && settingForRole(profile, `relay.${relays[task].id}.task`, task);
    if (target)
      put(target.code, target.value, 'wish', { wish, role: `relay.${relays[task].id}.task` });
  }
  for (const id of presentTerminals(profile)) {
    const code = profile.taskSettings[id];
    if (code === undefined || !isInput(profile, id)) continue;
    const f = arrangement.inputs.find((input) => at[input.id] === id);
    const task = taskCode(profile, f?.task ?? 'none');
    if (task === undefined) continue;
    put(code, task, f ? 'wiring' : 'unused', f ? { terminal: id, task: f.task } : { terminal: id });
  }
  for (const [code, { value, why }] of Object.entries(job.decisions.settings)) {
    if (profile.settings[code])
      settings[code] = { value, origin: 'person', why: { code: 'person', args: { why } } };
  }
  return { settings, unmet, beyond: takeBack(profile, settings) };
}

/** Why a meaning is wanted: a highest frequency that nobody answered is the plate's, and says so. */
function reasonOf(job: Job, role: string, wish: string): [string, Record<string, Value>] {
  if (role === 'commandSource') return ['handOver', { wish, role }];
  const plate = wish === 'maxHz' && job.scheme.maxHz === undefined && job.plate.motor.hz;
  return plate ? ['plate', { role }] : ['wish', { wish, role }];
}

/** Values beyond the end of their setting end there, and are told: never keyed as if they had been wanted. */
function takeBack(profile: Profile, settings: PlannedSettings): Beyond[] {
  const beyond: Beyond[] = [];
  for (const [code, { value, ...rest }] of Object.entries(settings)) {
    if (typeof value !== 'number') continue;
    const { min = -Infinity, max = Infinity } = profile.settings[code];
    const end = Math.min(Math.max(value, min), max);
    if (end === value) continue;
    settings[code] = { value: end, ...rest };
    beyond.push({ code, wanted: value, end });
  }
  return beyond;
}

function plateMeanings(job: Job): Record<string, Value> {
  const { motor } = job.plate;
  const n = plateNumbers(job.plate);
  const base = baseOf(job.plate, job.scheme.maxHz);
  const known: Record<string, Value | undefined> = {
    motorPowerKw: n.powerKw,
    motorV: base?.volts ?? n.rated?.volts,
    motorA: n.rated?.amps,
    motorHz: base?.hz ?? n.hz,
    motorRpm: n.rpm,
    motorPowerFactor: n.powerFactor,
    overloadA: n.rated?.amps,
  };
  return motor.power
    ? (Object.fromEntries(
        Object.entries(known).filter(([, value]) => value !== undefined),
      ) as Record<string, Value>)
    : {};
}

/** Whether a setting or the device itself brings a meaning about. */
export const meaningIsMet = (profile: Profile, role: string, value: Value): boolean =>
  settingForRole(profile, role, value) !== undefined || fixedTo(profile, role, value);

/** A stop that lets go is one that ramps down in no time, where no setting chooses between them. */
const coasts = (profile: Profile, role: string, value: Value): boolean =>
  role === 'stopKind' && value === 'coast' && roleSetting(profile, 'softStopS') !== undefined;

function fixedTo(profile: Profile, role: string, value: Value): boolean {
  const policy = profile.policies[role] ?? profile.roles[role];
  if (policy === undefined)
    return (
      roleSetting(profile, role) === undefined &&
      (value === false || value === 0 || /^ai[12]\./u.test(role))
    );
  return typeof policy === 'object' && 'fixed' in policy && policy.fixed === value;
}

/** Nearest value on a step of the setting. */
function onStep(profile: Profile, code: string, value: Value): Value {
  const { step } = profile.settings[code];
  if (typeof value !== 'number' || !step) return value;
  return Number((Math.round(value / step) * step).toFixed(6));
}
