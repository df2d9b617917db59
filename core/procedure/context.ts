import { modelOf, planningGaps, roleSetting, type Profile } from '../catalogue/index.js';
import { unmetRequirements, type Unmet } from '../hazards/index.js';
import {
  hashOf,
  landingParts,
  sortedEntries,
  tolerancesOf,
  type Expectation,
  type IsolationState,
  type Job,
  type Phrase,
  type ProcedureStep,
  type Tolerances,
  type Wiring,
} from '../job/index.js';
import { keypadSetting, type Installation, type InstalledDevice } from '../installation/index.js';
import { contactsOf, type PartOf } from '../parts/index.js';
import type { Trace } from '../trace/index.js';
import {
  lineIds,
  type Arrangement,
  type Direction,
  type InputFunction,
  type OperationId,
} from '../scheme/index.js';
import { requirementsOf, type Requirement } from '../requirements/index.js';
import { trialsOf, type Trials } from '../trials/index.js';

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
  /** The keys of the device start and stop it. */
  readonly startsByKey: boolean;
  /** Required functions that the job does not have, with what it does instead. */
  readonly unmet: ReadonlyMap<string, Unmet>;
  readonly requirements: readonly Requirement[];
  /** Only a part of the wires is landed: no required function can be shown yet. */
  readonly section: boolean;
  /** Ids of all required functions of the job. */
  readonly required: ReadonlySet<string>;
  /** By how much readings may differ. */
  readonly within: Tolerances;
}

/** There is a plan, and the behaviour of the device is simulated. */
export const canTest = (job: Job, profile: Profile): boolean =>
  job.adopted !== undefined &&
  modelOf(profile, job.profile.model) !== undefined &&
  planningGaps(profile).length === 0;

/**
 * Context of a job with an adopted plan.
 *
 * @param section only some of its wires are landed
 * @throws RangeError without one
 */
export function stepContext(job: Job, profile: Profile, section = false): StepContext {
  const trials = trialsOf(job, profile);
  const { arrangement, installation } = trials;
  const { device } = installation;
  const requirements = section ? [] : requirementsOf(trials);
  return {
    job,
    profile,
    trials,
    arrangement,
    installation,
    device,
    maxHz: device.facts.maxHz,
    keypadCode: section ? roleSetting(profile, 'keypadHz') : keypadSetting(job, profile),
    startsByKey: section || job.scheme.startStop === 'keypad',
    section,
    unmet: section ? new Map() : unmetRequirements(job, profile),
    requirements,
    required: new Set(requirements.map((r) => r.id)),
    within: tolerancesOf(job),
  };
}

/** State of isolation while only what the control is fed from is on; without a supply of its own the mains are. */
export const whileSwitchingOn = ({ arrangement }: StepContext): IsolationState =>
  arrangement.ownBreakers.length > 0 ? 'CONTROL LIVE' : 'MAIN LIVE';

/**
 * Hash of everything that an answer rests on: its words, what it expects, and the wires, parts and terminals behind it. If
 * one of them changes, its reading proves something else.
 */
export function basisOf(
  c: StepContext,
  s: Pick<ProcedureStep, 'key' | 'do' | 'must'> & { readonly expect?: Expectation },
  functions: readonly (Worked | 'dial' | 'supply' | 'motor')[],
  unmet?: string,
): string {
  const rests = [s.key, s.do, s.must, s.expect ?? null, circuitOf(c, functions)];
  // What passed while a required function was there says nothing once it is gone.
  return hashOf(unmet === undefined ? rests : [...rests, unmet]);
}

/** The wires, parts and terminals a step rests on. */
function circuitOf(
  { job, arrangement, installation }: StepContext,
  functions: readonly (Worked | 'dial' | 'supply' | 'motor')[],
): unknown {
  const { adopted } = job;
  if (!adopted) return [];
  const ids = functions.map((f) =>
    f === 'dial'
      ? (arrangement.dial ?? '')
      : f === 'supply'
        ? lineIds.supply
        : f === 'motor'
          ? installation.shaft.id
          : f.device,
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
  const turned = functions.includes('motor') && job.plate.motor.leadsExchanged === true;
  return { wires, assigned, parts, links, ...(turned ? { turned } : {}) };
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

/** What is expected between two limits that lie unevenly around it. */
export const between = (lo: number, nominal: number, hi: number, unit: string): Expectation => ({
  kind: 'range',
  lo: round(lo),
  hi: round(hi),
  nominal: round(nominal),
  unit,
});

export const state = (is: string): Expectation => ({ kind: 'state', is });

export const phrase = (code: string, args: Phrase['args'] = {}): Phrase => ({ code, args });

/** States of the device along a trace from a moment on, with the moment at which each begins, µs. */
export function stateTimes(trace: Trace, fromMs = 0): { t: number; state: string }[] {
  const index = trace.signals.findIndex((s) => s.id === 'device.state');
  const names = trace.signals[index].states ?? [];
  const { t, y } = trace.segments[index];
  return t.map((at, k) => ({ t: at, state: names[y[k]] })).filter((s) => s.t >= fromMs * 1000);
}

export const tagOf = ({ job }: StepContext, id: string): string =>
  job.adopted?.devices[id]?.tag ?? id;

/** A terminal of the device as it is written everywhere: with the device's tag before it. */
export const landingOf = (c: StepContext, terminal: string): string =>
  terminal === '' ? '' : `${tagOf(c, c.device.id)}:${terminal}`;

/** Tags of parts that are worked, each once. */
export const tagsOf = (
  c: StepContext,
  operations: readonly OperationId[],
  devices: readonly string[] = [],
): string[] => [
  ...new Set(
    [...operations.flatMap((id) => c.arrangement.operations[id]?.device ?? []), ...devices].map(
      (id) => tagOf(c, id),
    ),
  ),
];

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

/** Kind of the part that is worked, as it stands in the wiring. */
export const kindOf = ({ job }: StepContext, { device }: Worked): PartOf | undefined =>
  job.adopted?.devices[device];

/** Whether the function of an operation is what its part gives when nobody touches it. */
export function isAtRest(c: StepContext, id: OperationId): boolean {
  const worked = operationOf(c, id);
  const part = worked && kindOf(c, worked);
  const rest = part && contactsOf(part)?.rest;
  return worked?.position !== undefined && worked.position === rest;
}

/** How what takes a run away is worked: turned between two positions, or opened as if it were hot; nothing for the rest. */
export function turnedBetween(
  c: StepContext,
  worked: Worked,
): { turnOff?: string; turnOn?: string; hot?: true } {
  const part = kindOf(c, worked);
  const set = part && contactsOf(part);
  if (!set) return {};
  const turnOff = positionOf(c, worked);
  if (turnOff === 'hot') return { hot: true };
  return worked.id === 'interlock.isolator' || worked.id === 'interlock.output'
    ? { turnOff, turnOn: set.rest }
    : {};
}

/** Position of a part while it gives its function, as its kind names it. */
export const positionOf = (c: StepContext, f: Worked): string => {
  if (f.position) return f.position;
  const part = kindOf(c, f);
  const set = part && contactsOf(part);
  return set?.positions.filter((p) => p !== set.rest).at(-1) ?? 'closed';
};

/** Key of the direction test: by the function that gives it, or by the direction where one function gives both. */
export const directionKey = ({ arrangement }: StepContext, direction: Direction): string =>
  `direction.${arrangement.direction ? direction : (arrangement.starts[direction] ?? direction)}`;
