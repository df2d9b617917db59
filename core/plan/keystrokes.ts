import type { Profile, Value } from '../catalogue/index.js';
import { sortedEntries } from '../job/index.js';

/** Key presses in order, for printing and counting. */
export interface KeyPress {
  readonly key: string;
  readonly times: number;
  readonly holdS?: number;
}

const MOST_STEPS = 40;

/**
 * Key presses that change a setting from one value to another, starting from the resting display.
 *
 * Long runs of an arrow key are counted as at most 40 presses: held down, the keys of every keypad here run faster.
 *
 * @example keyPresses(profile, '212', 6, 4).map((p) => `${p.key} ×${p.times}`)
 */
export function keyPresses(profile: Profile, code: string, from: Value, to: Value): KeyPress[] {
  const { keypad } = profile;
  const { enter, up, down, back } = keypad.keys;
  const setting = profile.settings[code];
  if (keypad.style === 'dialsAndSwitches' || setting.type === 'dial' || setting.type === 'switch')
    return [];
  const presses: KeyPress[] = [{ key: enter, times: keypad.openList }];
  if (keypad.style === 'digitByDigit') {
    const digits = code.replace(/\D/gu, '');
    presses.push(
      { key: up, times: [...digits].reduce((sum, d) => sum + Number(d), 0) },
      { key: enter, times: digits.length },
    );
  } else {
    presses.push(
      { key: down, times: Math.min(placeInList(profile, code), MOST_STEPS) },
      { key: enter, times: 1 },
    );
  }
  const steps = Math.min(Math.abs(valueSteps(profile, code, from, to)), MOST_STEPS);
  presses.push({ key: valueSteps(profile, code, from, to) >= 0 ? up : down, times: steps });
  presses.push(
    keypad.confirmHoldS
      ? { key: enter, times: 1, holdS: keypad.confirmHoldS }
      : { key: enter, times: 1 },
    { key: back, times: keypad.openList },
  );
  return presses.filter((press) => press.times > 0);
}

const places = new WeakMap<Profile['settings'], ReadonlyMap<string, number>>();

/** Place of a setting in the list that the keypad runs through, from 0. */
function placeInList({ settings }: Profile, code: string): number {
  const known =
    places.get(settings) ?? new Map(sortedEntries(settings).map(([key], i) => [key, i]));
  places.set(settings, known);
  return known.get(code) ?? -1;
}

function valueSteps(profile: Profile, code: string, from: Value, to: Value): number {
  const setting = profile.settings[code];
  if (setting.choices) {
    const keys = Object.keys(setting.choices);
    return keys.indexOf(String(to)) - keys.indexOf(String(from));
  }
  return typeof from === 'number' && typeof to === 'number'
    ? Math.round((to - from) / (setting.step ?? 1))
    : 1;
}

/** How many keys are pressed in all. */
export function countPresses(presses: readonly KeyPress[]): number {
  return presses.reduce((sum, press) => sum + press.times, 0);
}
