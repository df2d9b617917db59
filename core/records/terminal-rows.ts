import { presentTerminals, type Profile, type Value } from '../catalogue/index.js';
import { sortedEntries, type Job, type Size } from '../job/index.js';
import { operationsOn } from '../scheme/index.js';
import { trialsOf, type Run, type Trials } from '../trials/index.js';

/** One wire at a terminal, with its other end. */
export interface TerminalEnd {
  readonly wire: string;
  readonly number: string;
  readonly colour: string;
  readonly size: Size;
  readonly far: string;
  readonly cable: string;
}

/** What a meter must show between two landings in one state of the station. */
export interface TerminalVolts {
  /** Part that is worked, and its position; nothing where all is at rest. */
  readonly device?: string;
  readonly position?: string;
  /** Share at which dial or signal stands, 0 … 1. */
  readonly share?: number;
  readonly volts: number;
}

/** A terminal of the device that something is landed on: its task, what lands there, and what a meter must show. */
export interface TerminalRow {
  readonly terminal: string;
  /** Function of the plan that it carries. */
  readonly function: string | undefined;
  readonly ends: readonly TerminalEnd[];
  readonly setting: { readonly code: string; readonly value: Value } | undefined;
  /** Landing against which it is measured. */
  readonly against: string | undefined;
  readonly expects: readonly TerminalVolts[];
}

/** Volts between two landings when a phase of a trial is looked at; without sign. */
function seen(run: Run, mark: string, plus: number, minus: number): number {
  const v = run.volts(plus, minus, run.lookMs(mark));
  return v ? Math.round(Math.max(v.ac, Math.abs(v.dc)) * 100) / 100 : 0;
}

interface Measured {
  readonly against: string | undefined;
  readonly expects: readonly TerminalVolts[];
}

const nothing: Measured = { against: undefined, expects: [] };

/** An input at rest and with each contact that gives it. */
function inputVolts(trials: Trials, terminal: string, name: string | undefined): Measured {
  const { arrangement, installation } = trials;
  const input = installation.device.inputs.find((i) => i.terminal === terminal);
  if (!input || name === undefined) return nothing;
  const f = arrangement.inputs.find(({ id }) => id === name);
  const rest = trials.run('supply.on');
  const expects: TerminalVolts[] = [{ volts: seen(rest, 'ready', input.plus, input.minus) }];
  for (const [i, id] of (f ? operationsOn(arrangement, f) : []).entries()) {
    const run = trials.tried(`input.${name}.${i + 1}`);
    const worked = arrangement.operations[id];
    if (!run || !worked) continue;
    const volts = seen(run, 'given', input.plus, input.minus);
    expects.push({ ...worked, volts });
  }
  return { against: installation.landings[input.minus], expects };
}

/** An enable with the emergency stop out and pressed in. */
function enableVolts(trials: Trials, terminal: string): Measured {
  const { arrangement, installation } = trials;
  const enable = installation.device.enables.find((i) => i.terminal === terminal);
  if (!enable) return nothing;
  const at = (run: Run, mark: string): number => seen(run, mark, enable.plus, enable.minus);
  const pressed = trials.tried('estop.blocks');
  const head = arrangement.estop && arrangement.operations[arrangement.estop];
  return {
    against: installation.landings[enable.minus],
    expects: [
      { volts: at(trials.run('supply.on'), 'ready') },
      ...(pressed && head ? [{ ...head, volts: at(pressed, 'opens') }] : []),
    ],
  };
}

/** An analogue input with its source at both ends. */
function signalVolts(trials: Trials, terminal: string): Measured {
  const { arrangement, installation } = trials;
  const input = installation.device.analogue.find((i) => i.terminal === terminal);
  if (!input || arrangement.dial === undefined) return nothing;
  return {
    against: installation.landings[input.minus],
    expects: [0, 0.5, 1].flatMap((share) => {
      const run = trials.tried(`dial.${share * 100}`);
      if (!run) return [];
      return [
        { device: arrangement.dial, share, volts: seen(run, 'start', input.plus, input.minus) },
      ];
    }),
  };
}

/**
 * Every terminal of the device that something is landed on, in the order in which they lie on it: both wires, their far ends,
 * the task and its setting, and the volts that a meter must show with its contact open and closed.
 *
 * @returns nothing without an adopted plan
 * @example terminalRows(job, profile).find((r) => r.terminal === 'D1')?.expects.map((e) => e.volts) // [24, 0]
 */
export function terminalRows(job: Job, profile: Profile): TerminalRow[] {
  const { adopted } = job;
  if (!adopted) return [];
  const trials = trialsOf(job, profile);
  const { device } = adopted;
  const functions = new Map(
    sortedEntries(adopted.assignments).map(([name, { at }]) => [at, name] as const),
  );
  return presentTerminals(profile).flatMap((terminal): TerminalRow[] => {
    const landing = `${device}:${terminal}`;
    const ends = sortedEntries(adopted.wires).flatMap(([wire, w]): TerminalEnd[] =>
      [
        [w.from, w.to],
        [w.to, w.from],
      ].flatMap(([here, far]) =>
        here === landing
          ? [{ wire, far, number: w.number, colour: w.colour, size: w.size, cable: w.cable ?? '' }]
          : [],
      ),
    );
    if (ends.length === 0) return [];
    const name = functions.get(landing);
    const code = profile.taskSettings[terminal];
    const setting = code === undefined ? undefined : adopted.settings[code];
    const measured = [
      inputVolts(trials, terminal, name),
      enableVolts(trials, terminal),
      signalVolts(trials, terminal),
    ].find((m) => m.expects.length > 0);
    return [
      {
        terminal,
        function: name,
        ends: ends.sort((x, y) => x.number.localeCompare(y.number, 'en', { numeric: true })),
        setting: code !== undefined && setting ? { code, value: setting.value } : undefined,
        ...(measured ?? nothing),
      },
    ];
  });
}

/** Terminals of the control alone: what a sheet to wire from begins with. */
export const isControl = (profile: Profile, terminal: string): boolean =>
  !['mains', 'motor', 'power'].includes(profile.terminals[terminal]?.kind ?? '');
