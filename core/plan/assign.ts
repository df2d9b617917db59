import {
  isInput,
  presentTerminals,
  relaysOf,
  taskCode,
  type Profile,
  type RelayTerminals,
  type SettingValues,
} from '../catalogue/index.js';
import type { InputFunction, OutputFunction } from '../scheme/index.js';
import { countPresses, keyPresses } from './keystrokes.js';

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
  | {
      readonly ok: false;
      readonly functions: readonly string[];
      readonly wishes: readonly string[];
      readonly inputs: number;
    };

const KEPT = 4;
const FREE: AssignmentCost = { moved: 0, settings: 0, keystrokes: 0, order: 0 };

/**
 * Chooses an input terminal for every function: a small search, exact. Hard: terminal kind, tasks available there, pins.
 * Then fewest wires moved, settings changed, key presses and lowest terminal order, each before the next.
 *
 * @param pins terminal by function, fixed by the person
 * @param before terminal by function in the wiring that is there
 * @param found settings as found, for counting changes
 * @returns the best and the next alternatives, or a set of functions from which none can be left out without a solution
 */
export function assignInputs(
  profile: Profile,
  functions: readonly InputFunction[],
  pins: Readonly<Record<string, string>>,
  before: Readonly<Record<string, string>>,
  found: SettingValues,
): AssignResult {
  const inputs = presentTerminals(profile).filter((id) => isInput(profile, id));
  const choices = functions.map((f) =>
    inputs.filter(
      (id) => carries(profile, id, f.task) && (pins[f.id] === undefined || pins[f.id] === id),
    ),
  );
  if (!matches(choices)) {
    const least = leastConflict(functions, choices);
    return {
      ok: false,
      functions: least.map((f) => f.id),
      wishes: [...new Set(least.map((f) => f.wish))],
      inputs: inputs.length,
    };
  }
  const costs = functions.map((f, i) =>
    Object.fromEntries(
      choices[i].map((id) => [
        id,
        stepCost(profile, f, id, before[f.id], found, inputs.indexOf(id)),
      ]),
    ),
  );
  const kept = search(functions, choices, costs);
  return { ok: true, best: kept[0], alternatives: kept.slice(1) };
}

/** Branch and bound: what the rest costs at least is what each function costs at its cheapest terminal. */
function search(
  functions: readonly InputFunction[],
  choices: readonly (readonly string[])[],
  costs: readonly Record<string, AssignmentCost>[],
): Assignment[] {
  const least = costs.map((byTerminal) =>
    Object.values(byTerminal).reduce((x, y) => (compareCost(x, y) <= 0 ? x : y)),
  );
  const rest = functions.map((_, i) => least.slice(i).reduce(addCost, FREE));
  const kept: Assignment[] = [];
  const at: Record<string, string> = {};
  const used = new Set<string>();
  const visit = (i: number, cost: AssignmentCost): void => {
    if (
      kept.length === KEPT &&
      compareCost(addCost(cost, rest[i] ?? FREE), kept[KEPT - 1].cost) >= 0
    )
      return;
    if (i === functions.length) {
      kept.push({ at: { ...at }, cost });
      kept.sort((x, y) => compareCost(x.cost, y.cost));
      if (kept.length > KEPT) kept.pop();
      return;
    }
    for (const id of choices[i]) {
      if (used.has(id)) continue;
      used.add(id);
      at[functions[i].id] = id;
      visit(i + 1, addCost(cost, costs[i][id]));
      used.delete(id);
    }
  };
  visit(0, FREE);
  return kept;
}

/** Whether every function can have a terminal of its own: a matching along augmenting paths. */
function matches(choices: readonly (readonly string[])[]): boolean {
  const holder = new Map<string, number>();
  const place = (i: number, seen: Set<string>): boolean =>
    choices[i].some((id) => {
      if (seen.has(id)) return false;
      seen.add(id);
      const other = holder.get(id);
      if (other !== undefined && !place(other, seen)) return false;
      holder.set(id, i);
      return true;
    });
  return choices.every((_, i) => place(i, new Set()));
}

/** Leaves out wish after wish as long as the conflict stays: none of those that remain can go without a solution. */
function leastConflict(
  functions: readonly InputFunction[],
  choices: readonly (readonly string[])[],
): InputFunction[] {
  let kept = functions.map((f, i) => ({ f, choice: choices[i] }));
  for (const wish of [...new Set(functions.map((f) => f.wish))]) {
    const without = kept.filter(({ f }) => f.wish !== wish);
    if (!matches(without.map((k) => k.choice))) kept = without;
  }
  return kept.map(({ f }) => f);
}

function carries(profile: Profile, id: string, task: string): boolean {
  const terminal = profile.terminals[id];
  if (terminal.kind !== 'digitalInput' && terminal.kind !== 'acInput') return false;
  if (terminal.fixedTask !== undefined) return terminal.fixedTask === task;
  return (
    taskCode(profile, task) !== undefined &&
    (terminal.tasks === 'any' || terminal.tasks.includes(task)) &&
    profile.taskSettings[id] !== undefined
  );
}

function stepCost(
  profile: Profile,
  f: InputFunction,
  id: string,
  before: string | undefined,
  found: SettingValues,
  order: number,
): AssignmentCost {
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
  return {
    moved: x.moved + y.moved,
    settings: x.settings + y.settings,
    keystrokes: x.keystrokes + y.keystrokes,
    order: x.order + y.order,
  };
}

function compareCost(x: AssignmentCost, y: AssignmentCost): number {
  return (
    x.moved - y.moved || x.settings - y.settings || x.keystrokes - y.keystrokes || x.order - y.order
  );
}

/** A relay with the one make contact that is wired. */
export interface ChosenRelay {
  readonly id: string;
  readonly common?: string;
  readonly no?: string;
  readonly nc?: string;
}

const chosen = ({ id, common, no, nc }: RelayTerminals): ChosenRelay => ({
  id,
  common,
  no: no.at(-1),
  nc: nc.at(-1),
});

/**
 * Chooses a relay for every output task, in the order of the device; a task that is wired needs a make contact.
 *
 * @returns relay by task with its terminals, or the wishes that ask for more relays than there are
 */
export function assignOutputs(
  profile: Profile,
  outputs: readonly OutputFunction[],
):
  | { ok: true; relays: Readonly<Record<string, ChosenRelay>> }
  | { ok: false; wishes: string[]; task: string } {
  const free = relaysOf(profile);
  const relays: Record<string, ChosenRelay> = {};
  for (const output of [...outputs].sort((x, y) => Number(y.wired) - Number(x.wired))) {
    const at = free.findIndex(
      (r) =>
        r.tasks.includes(output.task) &&
        (!output.wired || (r.common !== undefined && r.no.length > 0)) &&
        (!output.rests || r.nc.length > 0),
    );
    if (at < 0)
      return { ok: false, wishes: [...new Set(outputs.map((o) => o.wish))], task: output.task };
    relays[output.task] = chosen(free.splice(at, 1)[0]);
  }
  return { ok: true, relays };
}
