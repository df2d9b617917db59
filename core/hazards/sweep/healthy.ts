import type { Switchable } from '../../faults/index.js';
import {
  DESTROYED,
  Engine,
  timedActs,
  type EngineState,
  type KeptBoard,
  type SolvedMoment,
  type TimedAct,
} from '../../rehearsal/index.js';
import { signalAt, stateAt, type Trace } from '../../trace/index.js';
import type { Trial } from '../../trials/index.js';

/** Signals that a run of the sweep keeps: how fast the output drives, and whether the device is whole. */
export const WATCHED = ['device.hz', 'device.state'] as const;

/** Output frequency at a moment, µs; not a number once the device is destroyed. */
export function outputAt(trace: Trace, t: number): number {
  return stateAt(trace, 'device.state', t) === DESTROYED ? NaN : signalAt(trace, 'device.hz', t);
}

export type KeptMoment = SolvedMoment & { readonly board: KeptBoard };

/** The healthy job's run through the sweep's trial: what every fault is held against. */
export class HealthyRun {
  /** Networks that are electrically different, in the order in which they were first met. */
  readonly networks: KeptMoment[] = [];
  /** Network in force from each time on. */
  readonly course: { readonly t: number; readonly network: number }[] = [];
  readonly snapshots: EngineState[] = [];
  /** Output frequency when each phase is looked at. */
  readonly outputs: readonly number[];
  /** States at those moments, without what can no longer matter. */
  readonly states: readonly (readonly unknown[])[];
  readonly acts: readonly TimedAct[];
  /** Moments at which the phases are looked at, µs. */
  readonly looks: readonly number[];

  constructor({ installation }: Switchable, trial: Trial) {
    this.acts = timedActs(trial.acts);
    this.looks = trial.phases.map(({ lookMs }) => Math.round(lookMs * 1000));
    const keys = new Map<string, number>();
    const engine = new Engine(installation, {
      only: [...WATCHED],
      onSolved: (solved, running) => {
        const known = keys.get(solved.key) ?? keys.size;
        if (known === keys.size) {
          keys.set(solved.key, known);
          this.networks.push({ ...solved, board: running.keepBoard() });
        }
        this.course.push({ t: solved.t, network: known });
      },
      onSettled: (running) => void this.snapshots.push(running.snapshot()),
    });
    const outputs: number[] = [];
    const states: (readonly unknown[])[] = [];
    let done = 0;
    for (const look of this.looks) {
      const next = this.acts.findIndex((a) => a.t > look);
      const until = next < 0 ? this.acts.length : next;
      engine.runTo(look, this.acts.slice(done, until));
      done = until;
      outputs.push(outputAt(engine.trace, look));
      states.push(engine.restedStates());
    }
    this.outputs = outputs;
    this.states = states;
  }

  /** Last moment before t that was kept, and the acts after it; power-up where there is none. */
  leftAt(t: number): { readonly state: EngineState; readonly acts: readonly TimedAct[] } {
    const { snapshots, acts } = this;
    const at = firstWhere(snapshots, (s) => s.t >= t) - 1;
    const state = snapshots[Math.max(at, 0)];
    return { state, acts: at < 0 ? acts : acts.filter((a) => a.t > state.t) };
  }

  /** First time at or after t at which a network in force is one of those that differ. */
  firstDifference(differs: (network: number) => boolean, t: number): number | undefined {
    const { course } = this;
    const begin = firstWhere(course, (c) => c.t > t);
    if (begin > 0 && differs(course[begin - 1].network)) return t;
    for (let i = begin; i < course.length; i++) if (differs(course[i].network)) return course[i].t;
    return undefined;
  }
}

/** Place of the first that fulfils what all after it fulfil too; the length where none does. */
function firstWhere<T>(list: readonly T[], is: (item: T) => boolean): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (is(list[mid])) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** Whether two states are the same in everything. */
export function sameState(x: unknown, y: unknown): boolean {
  if (Object.is(x, y)) return true;
  if (typeof x !== 'object' || typeof y !== 'object' || x === null || y === null) return false;
  if (Array.isArray(x)) {
    if (!Array.isArray(y) || x.length !== y.length) return false;
    for (let i = 0; i < x.length; i++) if (!sameState(x[i], y[i])) return false;
    return true;
  }
  const [a, b] = [x as Record<string, unknown>, y as Record<string, unknown>];
  for (const key in a) if (!sameState(a[key], b[key])) return false;
  for (const key in b) if (!(key in a)) return false;
  return true;
}
