import {
  presentTerminals,
  roleSetting,
  settingForRole,
  taskCode,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import type { Job, Wiring } from '../job/index.js';
import { plateNumbers } from '../line/index.js';
import type { Arrangement } from '../scheme/index.js';

/** Meanings that nobody asked for in words: whether they matter is found by rehearsing the job. */
const judgedByRun: readonly string[] = ['onFaultReset'];

export type PlannedSettings = Wiring['settings'];

/**
 * Values the wishes, the plate and the wiring ask for, each with its reason; then the person's own, which win.
 *
 * @param at terminal by function
 * @param relays relay by output task
 * @returns settings by code, and meanings that no setting of this device can bring about
 */
export function planSettings(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  at: Readonly<Record<string, string>>,
  relays: Readonly<Record<string, { readonly id: string }>> = {},
): { settings: PlannedSettings; unmet: { role: string; wish: string }[] } {
  const settings: PlannedSettings = {};
  const unmet: { role: string; wish: string }[] = [];
  const put = (code: string, value: Value, why: string, args: Record<string, Value> = {}): void =>
    void (settings[code] = { value, origin: 'plan', why: { code: why, args } });
  for (const [role, value] of Object.entries(plateMeanings(job))) {
    const target = settingForRole(profile, role, value);
    if (target)
      put(target.code, clampToSetting(profile, target.code, target.value), 'plate', { role });
  }
  for (const { role, value, wish } of arrangement.meanings) {
    const target = settingForRole(profile, role, value);
    if (target)
      put(
        target.code,
        clampToSetting(profile, target.code, target.value),
        role === 'commandSource' ? 'handOver' : 'wish',
        { wish, role },
      );
    else if (!fixedTo(profile, role, value) && !judgedByRun.includes(role))
      unmet.push({ role, wish });
  }
  for (const { task, wish } of arrangement.outputs) {
    const target = relays[task] && settingForRole(profile, `relay.${relays[task].id}.task`, task);
    if (target)
      put(target.code, target.value, 'wish', { wish, role: `relay.${relays[task].id}.task` });
  }
  for (const id of presentTerminals(profile)) {
    const code = profile.taskSettings[id];
    if (code === undefined || profile.terminals[id].kind !== 'digitalInput') continue;
    const f = arrangement.inputs.find((input) => at[input.id] === id);
    const task = taskCode(profile, f?.task ?? 'none');
    if (task === undefined) continue;
    put(code, task, f ? 'wiring' : 'unused', f ? { terminal: id, task: f.task } : { terminal: id });
  }
  for (const [code, { value, why }] of Object.entries(job.decisions.settings)) {
    if (profile.settings[code])
      settings[code] = { value, origin: 'person', why: { code: 'person', args: { why } } };
  }
  return { settings, unmet };
}

function plateMeanings(job: Job): Record<string, Value> {
  const { motor } = job.plate;
  const n = plateNumbers(job.plate);
  const known: Record<string, Value | undefined> = {
    motorPowerKw: n.powerKw,
    motorV: n.rated?.volts,
    motorA: n.rated?.amps,
    motorHz: n.hz,
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

function fixedTo(profile: Profile, role: string, value: Value): boolean {
  const policy = profile.policies[role] ?? profile.roles[role];
  if (policy === undefined)
    return (
      roleSetting(profile, role) === undefined &&
      (value === false || value === 0 || role.startsWith('ai1.'))
    );
  return typeof policy === 'object' && 'fixed' in policy && policy.fixed === value;
}

/** Nearest value that can be keyed: on a step of the setting and between its ends. */
function clampToSetting(profile: Profile, code: string, value: Value): Value {
  const { min, max, step } = profile.settings[code];
  if (typeof value !== 'number') return value;
  const onStep = step ? Number((Math.round(value / step) * step).toFixed(6)) : value;
  return Math.min(Math.max(onStep, min ?? -Infinity), max ?? Infinity);
}
