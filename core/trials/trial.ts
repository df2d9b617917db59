import type { KeypadAt } from '../installation/index.js';
import type { Act } from '../job/index.js';

/** What is asked at the end of a phase: at rest before any start, in a run, after a stop, after power came back. */
export type Asks = 'quiet' | 'runs' | 'stopped' | 'returned' | 'end';

/** A stretch of a trial that begins with an act, and the moment at which is looked. */
export interface Phase {
  /** What is done, as a code for words: `start`, `estop`, `powerReturns`. */
  readonly mark: string;
  readonly asks: Asks;
  readonly fromMs: number;
  /** Moment shortly before the next act, at which the phase is looked at. */
  readonly lookMs: number;
}

/** A relay of which one contact, by its first terminal, moves a while before the others, ms. */
export interface RelayLag {
  readonly device: string;
  readonly first: string;
  readonly lagMs: number;
}

/**
 * A named experiment: data, stable from run to run, kept nowhere and derivable anywhere. Its id is a small grammar,
 * `<function>.<part>[.<variant>]`: `dial.25`, `power.return`, `estop`, `input.stop.1`.
 */
export interface Trial {
  readonly id: string;
  readonly acts: readonly Act[];
  /** How the keypad stands, where it gives the speed. */
  readonly keypad: KeypadAt;
  /** One contact of a relay that moves before its others. */
  readonly lag?: RelayLag;
  readonly endMs: number;
  readonly phases: readonly Phase[];
}

/** A phase of a trial by its mark; the last of that mark. @throws RangeError when the trial has none */
export function phaseOf(trial: Trial, mark: string): Phase {
  const phase = trial.phases.findLast((p) => p.mark === mark);
  if (!phase) throw new RangeError(`the trial "${trial.id}" has no phase "${mark}"`);
  return phase;
}
