import type { Profile } from '../catalogue/index.js';
import { unmetRequirements } from '../hazards/index.js';
import {
  hashOf,
  landingParts,
  sortedEntries,
  type Expectation,
  type Job,
  type Phrase,
  type ProcedureStep,
  type Wiring,
} from '../job/index.js';
import { keypadSetting, type Installation, type InstalledDevice } from '../installation/index.js';
import { contactsOf, type PartOf } from '../parts/index.js';
import type { Trace } from '../trace/index.js';
import {
  lineIds,
  operationsOn,
  type Arrangement,
  type Direction,
  type InputFunction,
  type OperationId,
} from '../scheme/index.js';
import { trialsOf, type Run, type Trials } from '../trials/index.js';

/** A part that is worked in a step: an input function, or the operation behind a start or stop. */
export interface Worked {
  readonly id: string;
  readonly device: string;
  readonly position?: string;
}

/** What the generators of steps share. */
export interface StepContext {
  readonly job: Job;
  readonly profile: Profile;
  readonly trials: Trials;
  readonly arrangement: Arrangement;
  readonly installation: Installation;
  readonly device: InstalledDevice;
  readonly maxHz: number;
  /** Setting that holds the keypad's frequency, where the keypad gives the speed. */
  readonly keypadCode: string | undefined;
  /** Required functions that the job does not have, with what it does instead. */
  readonly unmet: ReadonlyMap<string, string>;
}

/** Context of a job with an adopted plan. @throws RangeError without one */
export function stepContext(job: Job, profile: Profile): StepContext {
  const trials = trialsOf(job, profile);
  const { arrangement, installation } = trials;
  const { device } = installation;
  return {
    job,
    profile,
    trials,
    arrangement,
    installation,
    device,
    maxHz: device.facts.maxHz,
    keypadCode: keypadSetting(job, profile),
    unmet: unmetRequirements(job, profile),
  };
}

/** How a step says the speed is set: by a dial or another giver, or the frequency for a keypad. */
export const speedArgs = (
  { keypadCode, maxHz, job }: StepContext,
  share: number,
): Phrase['args'] =>
  keypadCode ? { keypadHz: share * maxHz } : { giver: job.scheme.speed ?? 'dial' };

/** The required function that a step tests, and whether this job has it. */
export function required(
  { unmet }: StepContext,
  id: string,
): Required<Pick<ProcedureStep, 'requirement'>> {
  const does = unmet.get(id);
  return { requirement: { id, ...(does === undefined ? {} : { unmet: does }) } };
}

/**
 * What a step expects: what is required where the job does not have it, however it is wired; else what the simulation shows,
 * which then is the same.
 */
export const expectedOf = <T>({ unmet }: StepContext, id: string, must: T, simulatedIs: T): T =>
  unmet.has(id) ? must : simulatedIs;

/** A live step, with what its reading rests on. */
export function step(
  c: StepContext,
  s: Omit<ProcedureStep, 'basis' | 'part'>,
  functions: readonly (Worked | 'dial' | 'supply')[],
): ProcedureStep {
  const circuit = circuitOf(c, functions);
  return { ...s, part: 'live', basis: hashOf([s.key, s.do, s.must, s.expect ?? null, circuit]) };
}

/** The wires, parts and terminals a step rests on: if one of them changes, its reading proves something else. */
function circuitOf(
  { job, arrangement }: StepContext,
  functions: readonly (Worked | 'dial' | 'supply')[],
): unknown {
  const { adopted } = job;
  if (!adopted) return [];
  const ids = functions.map((f) =>
    f === 'dial' ? (arrangement.dial ?? '') : f === 'supply' ? lineIds.supply : f.device,
  );
  const touches = (landing: string): boolean => ids.includes(landingParts(landing).device);
  const wires = sortedEntries(adopted.wires)
    .filter(([, w]) => touches(w.from) || touches(w.to))
    .map(([id, w]) => [id, w.from, w.to]);
  const assigned = functions.flatMap((f) =>
    typeof f === 'object' ? [adopted.assignments[f.id] ?? null] : [],
  );
  const parts = ids.map((id) => hashedPart(adopted.devices[id]));
  const links = functions.some((f) => typeof f === 'object' || f === 'dial') ? adopted.links : {};
  return { wires, assigned, parts, links };
}

/** A part in the form in which its hash was always taken, so that readings of the first format stay good. */
function hashedPart(part: Wiring['devices'][string] | undefined): unknown {
  if (!part) return null;
  const { positions, contacts, ...rest } = part;
  if (!positions || !contacts) return rest;
  const packed = {
    positions: positions.join(' '),
    contacts: contacts.map(({ closedIn }) => closedIn.join(' ')).join('|'),
  };
  return { ...rest, params: { ...rest.params, ...packed } };
}

const round = (x: number): number => Math.round(x * 1e4) / 1e4;

export const range = (nominal: number, tolerance: number, unit: string): Expectation => ({
  kind: 'range',
  lo: round(nominal - tolerance),
  hi: round(nominal + tolerance),
  nominal: round(nominal),
  unit,
});

export const phrase = (code: string, args: Phrase['args'] = {}): Phrase => ({ code, args });

/** The trial that gives an expected value, and the moment at which it shows. */
export const simulated = ({ trial }: Run, ms: number) =>
  ({ kind: 'simulation', script: trial.id, atUs: Math.round(ms * 1000) }) as const;

/** States of the device along a trace, with the moment at which each begins, µs. */
export function stateTimes(trace: Trace): { t: number; state: string }[] {
  const index = trace.signals.findIndex((s) => s.id === 'device.state');
  const names = trace.signals[index].states ?? [];
  const { t, y } = trace.segments[index];
  return t.map((at, k) => ({ t: at, state: names[y[k]] }));
}

/** Which way the motor is driven when a phase of a run is looked at. */
export function directionAt(run: Run, mark: string): 'forward' | 'reverse' | 'stopped' {
  const hz = run.hz(mark);
  return hz > 0 ? 'forward' : hz < 0 ? 'reverse' : 'stopped';
}

export const tagOf = ({ job }: StepContext, id: string): string =>
  job.adopted?.devices[id]?.tag ?? id;

export const terminalOf = ({ job }: StepContext, f: InputFunction): string => {
  const at = job.adopted?.assignments[f.id]?.at;
  return at ? landingParts(at).terminal : '';
};

export const operationOf = (
  { arrangement }: StepContext,
  id: OperationId | undefined,
): Worked | undefined => {
  const operation = id && arrangement.operations[id];
  return operation && { id, ...operation };
};

/** Operation that starts a direction. */
export const starterOf = (c: StepContext, direction: Direction = 'forward'): Worked | undefined =>
  operationOf(c, c.arrangement.starts[direction]);

/** Step in which the input behind an operation was tried: its own, or the one its relay gives. */
export function inputKey({ arrangement }: StepContext, worked: Worked): string {
  const input =
    arrangement.inputs.find((f) => f.id === worked.id) ??
    arrangement.inputs.find((f) => operationsOn(arrangement, f).some((id) => id === worked.id));
  return input ? `input.${input.id}` : 'supply.on';
}

/** Kind of the part that is worked, as it stands in the wiring. */
export const kindOf = ({ job }: StepContext, { device }: Worked): PartOf | undefined =>
  job.adopted?.devices[device];

/** Position of a part while it gives its function, as its kind names it. */
export const positionOf = (c: StepContext, f: Worked): string => {
  if (f.position) return f.position;
  const part = kindOf(c, f);
  const set = part && contactsOf(part);
  return set?.positions.filter((p) => p !== set.rest).at(-1) ?? 'closed';
};

/** Key of the direction test: by the function that gives it, or by the direction where one function gives both. */
export const directionKey = ({ arrangement }: StepContext, direction: Direction): string =>
  `direction.${arrangement.direction ? direction : arrangement.starts[direction]}`;
