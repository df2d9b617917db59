import type { Rank } from '../job/index.js';
import type { Direction, OperationId } from '../scheme/index.js';

/** What must be seen when a phase of a trial is looked at. */
export type Must =
  | { readonly kind: 'stopped' }
  | { readonly kind: 'staysStopped' }
  | { readonly kind: 'turns'; readonly way: Direction }
  | { readonly kind: 'restarts' }
  /** What was lost under way and has come back starts nothing; a run that went on all the while may go on. */
  | { readonly kind: 'noRestart'; readonly since: string }
  /** A signal stands for this time, ms, before the motor moves. */
  | { readonly kind: 'warns'; readonly signal: string; readonly ms: number }
  /** A part of the machine has answered, after no less than this time, ms, before the motor moves. */
  | { readonly kind: 'answersFirst'; readonly signal: string; readonly ms: number }
  /** A lamp, a relay, a brake: its signal stands so. */
  | { readonly kind: 'shows'; readonly signal: string; readonly on: boolean }
  /** At no moment a signal is on while the shaft turns: what unlocks a guard. */
  | { readonly kind: 'offWhileTurning'; readonly signal: string }
  /** At no moment of the trial the device drives its output while a signal is off: what opens behind it never opens under load. */
  | { readonly kind: 'onWhileDriving'; readonly signal: string }
  /** The frequency is higher than at the look before. */
  | { readonly kind: 'rises' }
  /** The output is at this frequency, Hz, whichever way; `share` of it may be missed. */
  | { readonly kind: 'speed'; readonly hz: number; readonly share: number }
  /** At no moment of the trial the output is above this frequency, Hz. */
  | { readonly kind: 'atMost'; readonly hz: number }
  /** Nothing behind the supply has any voltage against earth, but for these parts, which have a source of their own. */
  | { readonly kind: 'dead'; readonly but: readonly string[] }
  /** The shaft has come to rest within this time, s. */
  | { readonly kind: 'restsWithin'; readonly s: number };

/** The relay that carries a task, whichever it is: a signal of a requirement, not of a trace. */
export const relaySignal = (task: string): string => `relay.${task}`;

/** Where a trial shows it: the mark of a phase, and what must be so before, or it shows nothing. */
export interface Look {
  readonly trial: string;
  readonly mark: string;
  /** Phase at whose end the motor must have been driven, or a stop has stopped nothing. */
  readonly after?: string;
}

/**
 * A function that the machine must have: from wishes, plate and practice, never from the wiring. Its id is
 * `<part>.<function>`: `estop.stops`, `stop.1.dominates`, `interlock.guard.blocks`.
 */
export interface Requirement {
  readonly id: string;
  readonly rank: Rank;
  /** Paths in the scheme that it comes from. */
  readonly wish: readonly string[];
  /** What is worked to show it. */
  readonly operation: OperationId | undefined;
  /** Every one of them must show it; the worst counts. */
  readonly looks: readonly Look[];
  readonly must: Must;
  /** Nobody does it at the machine: a phase taken away, a channel that fails. It is shown in simulation only. */
  readonly simulatedOnly?: true;
}

/** What the motor does instead of what it must. */
export type Does =
  | 'otherSpeed'
  | 'tooFast'
  | 'turnsLonger'
  | 'staysLive'
  | 'unlocksTurning'
  /** A contactor behind the output opens or closes while it drives. */
  | 'opensUnderLoad'
  | 'runsDownUnknown'
  | 'doesNotRise'
  | 'startsUnwarned'
  | 'startsUnanswered'
  | 'isOn'
  | 'isOff'
  | 'runsForward'
  | 'runsReverse'
  | 'stands'
  | 'hums'
  | 'neverRuns';

/** A requirement held against a job as built. */
export interface Judged {
  readonly requirement: Requirement;
  /** `undecided`: no trial could show it. */
  readonly state: 'met' | 'notMet' | 'undecided';
  /** What this job does where the requirement is looked at; of the worst look. */
  readonly does: Does;
  /** Output frequency there, Hz. */
  readonly hz: number;
  /** The trial that shows it, and the moment. */
  readonly proof: { readonly script: string; readonly atUs: number } | undefined;
}
