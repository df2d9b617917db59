import { factorySettings, modelOf, type Profile, type Value } from '../catalogue/index.js';
import { snapshotOf, sortedEntries, type Evidence, type Job } from '../job/index.js';
import { plateNumbers } from '../line/index.js';
import { heldValues } from './held.js';
import { panelSettings, standsAsPlanned, type PanelSetting } from './panel-settings.js';

/** One setting in the three sets: as found, planned, as left. */
export interface SettingRow {
  readonly code: string;
  readonly name: string;
  readonly unit: string;
  readonly factory: Value;
  /** It was reset to the factory's value here, and not read singly. */
  readonly byReset: boolean;
  /** What was read before anything was changed; undefined where nothing was. */
  readonly found: Value | undefined;
  readonly planned: Value;
  readonly left: Value | undefined;
  /** The plan keys it or rests on it: it is to be read back. */
  readonly relied: boolean;
  /** The device measures it by itself: planned is what it read when that was done, if it was. */
  readonly measured: boolean;
  readonly state: 'same' | 'asPlanned' | 'toKey' | 'differs';
  /** It is set elsewhere in the panel or at the controller, not at the device. */
  readonly panel?: PanelSetting;
}

/**
 * Values that the device holds as far as is known: the factory's, with those of the newest snapshot as found.
 *
 * @returns undefined where nothing was read yet
 */
export function foundValues(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Record<string, Value> | undefined {
  const found = snapshotOf(evidence, 'asFound')?.body.values;
  const model = modelOf(profile, job.profile.model);
  return found && model ? { ...factorySettings(profile, model), ...found } : found;
}

/**
 * Compares the three sets, setting by setting.
 *
 * @example settingRows(job, profile, factory, evidence).filter((row) => row.state === 'differs')
 */
export function settingRows(
  job: Job,
  profile: Profile,
  factory: Readonly<Record<string, Value>>,
  evidence: readonly Evidence[],
): SettingRow[] {
  const read = snapshotOf(evidence, 'asFound')?.body;
  const found = read?.values ?? {};
  const reset = read?.source === 'factory';
  const left = snapshotOf(evidence, 'asLeft')?.body.values;
  const planned = job.adopted?.settings ?? {};
  const results = job.adopted ? (profile.identification?.results ?? []) : [];
  const held = results.length > 0 ? heldValues(job, profile, evidence) : undefined;
  const own = sortedEntries(profile.settings).map(([code, setting]): SettingRow => {
    const measured = results.includes(code);
    // Until it is read, the device is taken to hold the factory's value; that is not said to have been found.
    const f = found[code] ?? factory[code];
    const p = planned[code]?.value ?? (measured ? held?.[code] : undefined) ?? f;
    const row = { found: f, planned: p, left: left?.[code], factory: factory[code] };
    return {
      code,
      name: setting.name,
      unit: setting.unit,
      factory: factory[code],
      byReset: reset && found[code] === undefined,
      found: found[code],
      planned: p,
      left: left?.[code],
      relied: planned[code] !== undefined || measured,
      measured,
      state: measured ? measuredState(row) : stateOf(row),
    };
  });
  const amps = plateNumbers(job.plate).rated?.amps;
  return [
    ...own,
    ...panelSettings(job, profile, amps).map((at) => panelRow(at, found[at.code], left?.[at.code])),
  ];
}

/** Something that is set elsewhere in the panel; where nobody can say what it has to stand at, it is only noted. */
function panelRow(
  panel: PanelSetting,
  found: Value | undefined,
  left: Value | undefined,
): SettingRow {
  const { code, what, unit, planned } = panel;
  const kept =
    left === undefined ? 'toKey' : standsAsPlanned(panel, left) ? 'asPlanned' : 'differs';
  return {
    code,
    name: what,
    unit,
    factory: planned ?? '',
    byReset: false,
    found,
    planned: planned ?? '',
    left,
    relied: planned !== undefined,
    measured: false,
    state: planned === undefined ? 'same' : kept,
    panel,
  };
}

interface Compared {
  readonly found: Value;
  readonly planned: Value;
  readonly left: Value | undefined;
  readonly factory: Value;
}

function stateOf({ found, planned, left, factory }: Compared): SettingRow['state'] {
  if (left === undefined) return planned === found ? 'same' : 'toKey';
  if (left !== planned) return 'differs';
  return planned === factory ? 'same' : 'asPlanned';
}

/** A result of an identification run: left at the factory's value, nothing was measured, or a wipe has undone it. */
function measuredState({ planned, left, factory }: Compared): SettingRow['state'] {
  if (left === undefined) return 'toKey';
  return left === factory || (planned !== factory && left !== planned) ? 'differs' : 'asPlanned';
}
