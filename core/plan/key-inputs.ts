import { isInput, taskCode, type Profile, type Value } from '../catalogue/index.js';
import type { Phrase } from '../job/index.js';
import type { KeySheet } from './key-sheet.js';
import type { PlannedSettings } from './settings.js';

const startTasks: readonly string[] = ['start', 'startForward', 'startReverse'];

const halves: readonly string[] = [...startTasks, 'stop'];

/** A task by the code that a device knows it by, and its meaning. */
const taskOfCode = (profile: Profile, value: Value | undefined) =>
  Object.values(profile.inputTasks).find((t) => t.code === value);
const meaningOf = (profile: Profile, value: Value | undefined): string | undefined =>
  taskOfCode(profile, value)?.meaning;

/** Settings that hold the tasks of inputs. */
export const inputTaskCodes = (profile: Profile): string[] =>
  Object.entries(profile.taskSettings)
    .filter(([id]) => isInput(profile, id))
    .map(([, code]) => code);

/**
 * Halves of the pair of start and stop that the inputs hold.
 *
 * @example halvesHeld(profile, held) // { start: true, stop: false }: an incomplete pair
 */
export function halvesHeld(
  profile: Profile,
  held: Readonly<Record<string, Value>>,
): { readonly start: boolean; readonly stop: boolean } {
  const meanings = inputTaskCodes(profile).map((code) => meaningOf(profile, held[code]) ?? '');
  return {
    start: meanings.some((m) => startTasks.includes(m)),
    stop: meanings.includes('stop'),
  };
}

/** What a device says to half a pair of start and stop; undefined where it takes it in silence, or where the pair is whole. */
function pairNote(
  { profile, now }: KeySheet,
  code: string,
  to: Value,
): { readonly note: Phrase } | undefined {
  if (profile.incompletePair === 'accepted') return undefined;
  const { start, stop } = halvesHeld(profile, { ...now, [code]: to });
  const half = halves.includes(meaningOf(profile, to) ?? '');
  return half && start !== stop
    ? { note: { code: `pair.${profile.incompletePair}`, args: { half: stop ? 'stop' : 'start' } } }
    : undefined;
}

/**
 * Tasks of the inputs: what is occupied is freed before it is given to another, the halves of a pair come one after the other,
 * and where a device refuses a start without its stop, the stop comes first.
 */
export function keyInputs(
  sheet: KeySheet,
  planned: PlannedSettings,
  codes: readonly string[],
): void {
  const { profile } = sheet;
  const tasks = new Set(Object.values(profile.taskSettings));
  const none = taskCode(profile, 'none');
  const key = (code: string): void => {
    const { value, why } = planned[code];
    sheet.change('inputs', code, value, why, pairNote(sheet, code, value));
  };
  for (const code of codes.filter((c) => !tasks.has(c))) key(code);
  const inputs = codes.filter((c) => tasks.has(c));
  const isOpen = (code: string): boolean => sheet.now[code] !== planned[code].value;
  const holder = (task: Value, but: string): string | undefined =>
    task === none ? undefined : inputs.find((code) => code !== but && sheet.now[code] === task);
  /** A start that the device would refuse just now: its stop is on no input yet. */
  const early = (code: string): boolean =>
    profile.incompletePair === 'refused' &&
    startTasks.includes(meaningOf(profile, planned[code].value) ?? '') &&
    !halvesHeld(profile, sheet.now).stop;
  let open = [...inputs]
    .sort((x, y) => pairRank(profile, planned[x].value) - pairRank(profile, planned[y].value))
    .filter(isOpen);
  while (open.length > 0) {
    const free = open.filter((code) => holder(planned[code].value, code) === undefined);
    const next = free.find((code) => !early(code)) ?? free[0];
    if (next !== undefined) key(next);
    else if (none !== undefined) {
      const ring = holder(planned[open[0]].value, open[0]) as string;
      const why = { code: 'freeTask', args: { code: open[0] } };
      sheet.change('inputs', ring, none, why, { key: `${ring}.free` });
    } else return;
    open = open.filter(isOpen);
  }
}

/** Tasks that belong together come one after the other: the halves of a pair share a rank, `none` goes first. */
function pairRank(profile: Profile, value: Value): number {
  const task = taskOfCode(profile, value);
  if (!task || task.meaning === 'none') return 0;
  return task.needs || halves.includes(task.meaning) ? 1 : 2;
}
