import type { Profile } from '../catalogue/index.js';
import { contactKind } from '../parts/index.js';
import { longestTravelMs } from '../drive/index.js';
import {
  hashOf,
  sortedEntries,
  type Expectation,
  type Job,
  type Phrase,
  type ProcedureStep,
} from '../job/index.js';
import { installAtSpeed, type Installation, type InstalledDrive } from '../installation/index.js';
import { rehearse, signalAt, type Trace } from '../rehearsal/index.js';
import {
  actsOf,
  give,
  operationsOn,
  powerUp,
  READY_MS,
  type Arrangement,
  type Direction,
  type InputFunction,
} from '../scheme/index.js';

/** A device that is worked in a step: an input function, or the operation behind a start or stop. */
export interface Worked {
  readonly id: string;
  readonly device: string;
  readonly position?: string;
}

/** What the generators of steps share. */
export interface Bench {
  readonly job: Job;
  readonly profile: Profile;
  readonly arrangement: Arrangement;
  readonly installation: Installation;
  readonly drive: InstalledDrive;
  readonly maxHz: number;
  /** Setting that holds the keypad's frequency, where the keypad gives the speed. */
  readonly keypadCode?: string;
}

const LONG_MS = 3_600_000;
export const TRAVEL_MARGIN_MS = 2000;

/** The job as it stands, the keypad at a share of the highest frequency where it gives the speed. */
export const atSpeed = ({ job, profile }: Bench, share: number): Installation =>
  installAtSpeed(job, profile, share);

/** How a step says the speed is set: by a dial or another giver, or the frequency for a keypad. */
export const speedArgs = ({ keypadCode, maxHz, job }: Bench, share: number): Phrase['args'] =>
  keypadCode ? { keypadHz: share * maxHz } : { giver: job.scheme.speed ?? 'dial' };

export function step(
  bench: Bench,
  s: Omit<ProcedureStep, 'basis' | 'part'>,
  functions: readonly (Worked | 'dial' | 'supply')[],
): ProcedureStep {
  const circuit = circuitOf(bench, functions);
  return { ...s, part: 'live', basis: hashOf([s.key, s.do, s.must, s.expect ?? null, circuit]) };
}

/** The wires, devices and terminals a step rests on: if one of them changes, its reading proves something else. */
function circuitOf(
  { job, arrangement }: Bench,
  functions: readonly (Worked | 'dial' | 'supply')[],
): unknown {
  const adopted = job.adopted;
  if (!adopted) return [];
  const devices = functions.map((f) =>
    f === 'dial' ? (arrangement.dial ?? '') : f === 'supply' ? 'supply' : f.device,
  );
  const touches = (landing: string): boolean => devices.some((id) => landing.startsWith(`${id}:`));
  const wires = sortedEntries(adopted.wires)
    .filter(([, w]) => touches(w.from) || touches(w.to))
    .map(([id, w]) => [id, w.from, w.to]);
  const assigned = functions.flatMap((f) =>
    typeof f === 'object' ? [adopted.assignments[f.id] ?? null] : [],
  );
  const parts = devices.map((id) => adopted.devices[id] ?? null);
  const links = functions.some((f) => typeof f === 'object' || f === 'dial') ? adopted.links : {};
  return { wires, assigned, parts, links };
}

export const range = (nominal: number, tolerance: number, unit: string): Expectation => ({
  kind: 'range',
  lo: round(nominal - tolerance),
  hi: round(nominal + tolerance),
  nominal: round(nominal),
  unit,
});
const round = (x: number): number => Math.round(x * 1e4) / 1e4;
export const phrase = (code: string, args: Phrase['args'] = {}): Phrase => ({ code, args });
export const simulated = (script: string, atMs: number) =>
  ({ kind: 'simulation', script, atUs: Math.round(atMs * 1000) }) as const;

/** Longest time any travel between 0 and the highest frequency can take under these ramps, ms. */
export function rampMs({ drive, arrangement }: Bench): number {
  return arrangement.warningMs + Math.min(LONG_MS, longestTravelMs(drive.control));
}

export function stateTimes(trace: Trace): { t: number; state: string }[] {
  const index = trace.signals.findIndex((s) => s.id === 'drive.state');
  const names = trace.signals[index].states ?? [];
  return trace.segments[index].t.map((t, k) => ({ t, state: names[trace.segments[index].y[k]] }));
}

export function directionAt(trace: Trace, ms: number): 'forward' | 'reverse' | 'stopped' {
  const hz = signalAt(trace, 'drive.hz', ms * 1000);
  return hz > 0 ? 'forward' : hz < 0 ? 'reverse' : 'stopped';
}

export const tagOf = ({ job }: Bench, device: string): string =>
  job.adopted?.devices[device]?.tag ?? device;
export const terminalOf = ({ job }: Bench, f: InputFunction): string =>
  job.adopted?.assignments[f.id]?.at.split(':')[1] ?? '';
export const operationOf = ({ arrangement }: Bench, id: string | undefined): Worked | undefined => {
  const operation = arrangement.operations[id ?? ''];
  return operation && { id: id as string, ...operation };
};
/** Operation that starts a direction. */
export const starterOf = (bench: Bench, direction: Direction = 'forward'): Worked | undefined =>
  operationOf(bench, bench.arrangement.starts[direction]);

/** Step in which the input behind an operation was tried: its own, or the one its relay gives. */
export function inputKey({ arrangement }: Bench, worked: Worked): string {
  const input =
    arrangement.inputs.find((f) => f.id === worked.id) ??
    arrangement.inputs.find((f) => operationsOn(arrangement, f).includes(worked.id));
  return input ? `input.${input.id}` : 'supply.on';
}

/** Operation that really works an input: the first that the simulation shows to switch it. */
export function workerOf(bench: Bench, f: InputFunction, terminal: string): Worked | undefined {
  const { arrangement } = bench;
  const end = inputMs(bench);
  const ids = operationsOn(arrangement, f);
  const works = ids.find((id) => {
    const trace = rehearse(
      atSpeed(bench, 0),
      actsOf(...powerUp(arrangement, 0), give(arrangement, id, READY_MS)),
      end,
    );
    return (
      signalAt(trace, `drive.${terminal}`, end * 1000) !==
      signalAt(trace, `drive.${terminal}`, (READY_MS - 100) * 1000)
    );
  });
  return operationOf(bench, works ?? ids[0]);
}

/** When an input has followed its contact, ms: relays and a start warning in between. */
export const inputMs = ({ arrangement }: Bench): number => READY_MS + 500 + arrangement.warningMs;

export const kindOf = ({ arrangement }: Bench, f: Worked): string | undefined =>
  arrangement.devices.find((d) => d.id === f.device)?.kind;

/** Position of a device while it gives its function, as its kind names it. */
export const positionOf = (bench: Bench, f: Worked): string => {
  if (f.position) return f.position;
  const kind = contactKind(kindOf(bench, f) ?? '');
  return kind?.positions.filter((p) => p !== kind.rest).at(-1) ?? 'closed';
};
