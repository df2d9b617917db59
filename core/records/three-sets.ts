import { factorySettings, modelOf, type Profile, type Value } from '../catalogue/index.js';
import { sortedEntries, type Evidence, type EvidenceOf, type Job } from '../job/index.js';

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
  readonly state: 'same' | 'asPlanned' | 'toKey' | 'differs';
}

/** The newest snapshot of a kind. */
export function snapshotOf(
  evidence: readonly Evidence[],
  which: 'asFound' | 'asLeft',
): EvidenceOf<'snapshot'> | undefined {
  return evidence.findLast(
    (e): e is EvidenceOf<'snapshot'> => e.kind === 'snapshot' && e.body.which === which,
  );
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

/** Compares the three sets, setting by setting. */
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
  return sortedEntries(profile.settings).map(([code, setting]) => {
    // Until it is read, the device is taken to hold the factory's value; that is not said to have been found.
    const f = found[code] ?? factory[code];
    const p = planned[code]?.value ?? f;
    const l = left?.[code];
    const state =
      l !== undefined
        ? l === p
          ? p === factory[code]
            ? 'same'
            : 'asPlanned'
          : 'differs'
        : p === f
          ? 'same'
          : 'toKey';
    return {
      code,
      name: setting.name,
      unit: setting.unit,
      factory: factory[code],
      byReset: reset && found[code] === undefined,
      found: found[code],
      planned: p,
      left: l,
      relied: planned[code] !== undefined,
      state,
    };
  });
}
