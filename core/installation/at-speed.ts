import { roleSetting, type Profile, type SettingValues } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { settingsInForce } from '../plan/index.js';
import { install } from './build.js';
import type { Installation } from './installation.js';

/** Setting that holds the keypad's frequency, where the keypad gives the speed of this job. */
export const keypadSetting = (job: Job, profile: Profile): string | undefined =>
  (job.scheme.speed ?? 'keypad') === 'keypad' ? roleSetting(profile, 'keypadHz') : undefined;

/**
 * The job as planned, with the keypad at a share of the highest frequency where the keypad gives the speed. A dial is
 * turned by an act of the script instead; a keypad left at 0 Hz would hide every restart.
 *
 * @param share 0 … 1 of the highest frequency
 * @param policies behaviour to take where the profile does not know it
 * @throws RangeError as `install`
 * @example installAtSpeed(job, profile, 0.5)
 */
export function installAtSpeed(
  job: Job,
  profile: Profile,
  share: number,
  policies?: SettingValues,
): Installation {
  const values = keypadValues(job, profile, share);
  return values
    ? install(job, profile, { from: 'snapshot', id: `keypad at ${share}`, values }, { policies })
    : install(job, profile, { from: 'planned' }, { policies });
}

/**
 * The job as planned with the keypad's own frequency at a share of the highest, wherever the speed comes from otherwise:
 * what runs when local is selected.
 */
export function installWithKeypad(
  job: Job,
  profile: Profile,
  share: number,
  policies?: SettingValues,
): Installation {
  const values = keypadValues(job, profile, share, roleSetting(profile, 'keypadHz'));
  return values
    ? install(job, profile, { from: 'snapshot', id: `keypad at ${share}`, values }, { policies })
    : install(job, profile, { from: 'planned' }, { policies });
}

/** All settings as planned with the keypad at a share of the highest frequency; undefined where it does not give the speed. */
export function keypadValues(
  job: Job,
  profile: Profile,
  share: number,
  code = keypadSetting(job, profile),
): SettingValues | undefined {
  const model = profile.models.find((m) => m.name === job.profile.model);
  if (!code || !model) return undefined;
  const planned = settingsInForce(profile, model, job.adopted?.settings ?? {});
  const top = planned[roleSetting(profile, 'maxHz') ?? ''];
  return { ...planned, [code]: share * (typeof top === 'number' ? top : 50) };
}
