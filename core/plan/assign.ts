import type { Profile, SettingValues } from '../catalogue/index.js';
import type { InputFunction } from '../scheme/index.js';
import { countPresses, keyPresses } from './keystrokes.js';
import { presentTerminals } from './terminals.js';

/** What an assignment costs, compared in this order. */
export interface AssignmentCost {
  readonly moved: number;
  readonly settings: number;
  readonly keystrokes: number;
  readonly order: number;
}

export interface Assignment {
  /** Function id → terminal. */
  readonly at: Readonly<Record<string, string>>;
  readonly cost: AssignmentCost;
}

export type AssignResult =
  | { readonly ok: true; readonly best: Assignment; readonly alternatives: readonly Assignment[] }
  | { readonly ok: false; readonly functions: readonly string[]; readonly inputs: number };

const KEPT = 4;

/**
 * Chooses an input terminal for every function: a small search, exact. Hard: terminal kind, tasks available there, pins.
 * Then fewest wires moved, settings changed, key presses and lowest terminal order, each before the next.
 *
 * @param pins terminal by function, fixed by the person
 * @param before terminal by function in the wiring that is there
 * @param found settings as found, for counting changes
 */
export function assignInputs(
  profile: Profile,
  functions: readonly InputFunction[],
  pins: Readonly<Record<string, string>>,
  before: Readonly<Record<string, string>>,
  found: SettingValues,
): AssignResult {
  const inputs = presentTerminals(profile).filter((id) => profile.terminals[id].kind === 'digitalInput');
  const choices = functions.map((f) => inputs.filter((id) => carries(profile, id, f.task) && (pins[f.id] === undefined || pins[f.id] === id)));
  const conflict = choices.findIndex((list) => list.length === 0);
  if (conflict >= 0) return { ok: false, functions: [functions[conflict].id], inputs: inputs.length };
  const kept: Assignment[] = [];
  const at: Record<string, string> = {};
  const used = new Set<string>();
  const search = (i: number, cost: AssignmentCost): void => {
    if (kept.length === KEPT && compareCost(cost, kept[KEPT - 1].cost) > 0) return;
    if (i === functions.length) {
      kept.push({ at: { ...at }, cost });
      kept.sort((x, y) => compareCost(x.cost, y.cost));
      if (kept.length > KEPT) kept.pop();
      return;
    }
    const f = functions[i];
    for (const id of choices[i]) {
      if (used.has(id)) continue;
      used.add(id);
      at[f.id] = id;
      search(i + 1, addCost(cost, stepCost(profile, f, id, before[f.id], found, inputs.indexOf(id))));
      used.delete(id);
    }
  };
  search(0, { moved: 0, settings: 0, keystrokes: 0, order: 0 });
  if (kept.length === 0) return { ok: false, functions: functions.map((f) => f.id), inputs: inputs.length };
  return { ok: true, best: kept[0], alternatives: kept.slice(1) };
}

function carries(profile: Profile, id: string, task: string): boolean {
  const terminal = profile.terminals[id];
  if (terminal.kind !== 'digitalInput') return false;
  if (terminal.fixedTask !== undefined) return terminal.fixedTask === task;
  return taskCode(profile, task) !== undefined && (terminal.tasks === 'any' || terminal.tasks.includes(task)) && profile.taskSettings[id] !== undefined;
}

/** Value by which the device knows a task; undefined where it has no such task. */
export function taskCode(profile: Profile, task: string): string | number | undefined {
  return Object.values(profile.inputTasks).find((t) => t.meaning === task)?.code;
}

function stepCost(profile: Profile, f: InputFunction, id: string, before: string | undefined, found: SettingValues, order: number): AssignmentCost {
  const setting = profile.taskSettings[id];
  const wanted = taskCode(profile, f.task);
  const changes = setting !== undefined && wanted !== undefined && found[setting] !== wanted;
  return {
    moved: before !== undefined && before !== id ? 1 : 0,
    settings: changes ? 1 : 0,
    keystrokes: changes ? countPresses(keyPresses(profile, setting, found[setting], wanted)) : 0,
    order,
  };
}

function addCost(x: AssignmentCost, y: AssignmentCost): AssignmentCost {
  return { moved: x.moved + y.moved, settings: x.settings + y.settings, keystrokes: x.keystrokes + y.keystrokes, order: x.order + y.order };
}

function compareCost(x: AssignmentCost, y: AssignmentCost): number {
  return x.moved - y.moved || x.settings - y.settings || x.keystrokes - y.keystrokes || x.order - y.order;
}
