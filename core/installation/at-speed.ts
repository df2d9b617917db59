import { roleSetting, type Profile, type Value } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { asBuilt, type Panel } from './panel.js';
import { install } from './install.js';
import type { Installation } from './installation.js';

/** Setting that holds the keypad's frequency, where the keypad gives the speed of this job. */
export const keypadSetting = (job: Job, profile: Profile): string | undefined =>
  (job.scheme.speed ?? 'keypad') === 'keypad' ? roleSetting(profile, 'keypadHz') : undefined;

/** How the keypad stands while something is tried. */
export interface KeypadAt {
  /** Share of the highest frequency, 0 … 1. */
  readonly share: number;
  /** Also where the speed comes from elsewhere: what runs when local is selected. */
  readonly always?: boolean;
}

/** A panel with its keypad at a share of the highest frequency; the same one where the keypad does not matter. */
export function panelAt(job: Job, profile: Profile, panel: Panel, at: KeypadAt): Panel {
  const code = at.always ? roleSetting(profile, 'keypadHz') : keypadSetting(job, profile);
  if (code === undefined) return panel;
  const top = panel.settings[roleSetting(profile, 'maxHz') ?? ''];
  const hz = at.share * (typeof top === 'number' ? top : 50);
  return { ...panel, settings: { ...panel.settings, [code]: hz } };
}

/**
 * The job as built, with the keypad at a share of the highest frequency where the keypad gives the speed. A dial is turned
 * by an act of the script instead; a keypad left at 0 Hz would hide every restart.
 *
 * @param policies behaviour to take where the profile does not know it
 * @throws RangeError as `install`
 * @example installAtSpeed(job, profile, { share: 0.5 })
 */
export function installAtSpeed(
  job: Job,
  profile: Profile,
  at: KeypadAt,
  policies?: Readonly<Record<string, Value>>,
): Installation {
  const panel = panelAt(job, profile, asBuilt(job, profile), at);
  return install(job, profile, { from: 'planned' }, { policies, panel });
}
