import { monitorShown, shownIn } from '../../catalogue/index.js';
import type { DisplaySeen } from '../../job/index.js';
import type { StepContext } from '../context.js';
import type { Sequence } from './sequence.js';

/** What of the device an answer is read from: what it shows by itself, or one of its monitors. */
export type ReadsAt = 'state' | 'hz' | 'inputs';

/**
 * What display and lamps of the device show now, and the keys that reach it.
 *
 * @returns undefined where the profile does not say, and where the display is dark while a monitor is to be read
 */
export function displayNow(
  { profile }: StepContext,
  s: Sequence,
  at: ReadsAt,
): DisplaySeen | undefined {
  const amps = s.has('amps') ? s.at('device.amps') : 0;
  const shown = shownIn(profile, { state: s.state, hz: s.hz, fault: s.fault, amps });
  if (!shown) return undefined;
  if (at === 'state') return { monitor: '', keys: [], shows: shown.text, lamps: [...shown.lamps] };
  if (shown.text === '') return undefined;
  const value =
    at === 'hz' ? s.hz : (terminal: string) => s.has(terminal) && s.at(`device.${terminal}`) === 1;
  const monitor = monitorShown(profile, at, value);
  if (!monitor) return undefined;
  const { name, keys } = monitor;
  // Where the display rests on the frequency it shows it in the words of the state.
  const shows = at === 'hz' && keys.length === 0 ? shown.text : monitor.shows;
  return { monitor: name, keys: [...keys], shows, lamps: [] };
}
