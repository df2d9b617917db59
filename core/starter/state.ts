import type { RunPoint } from '../motor/index.js';
import type { StarterFault, StarterLevels } from './vocabulary.js';

/** +1 forward, −1 reverse, 0 none. */
export type Direction = -1 | 0 | 1;

/** A run of the voltage as it was planned when it began; times in µs of the whole simulation. */
export interface PlannedRun {
  readonly beganUs: number;
  /** Moments of the run, their time since it began in s. */
  readonly points: readonly RunPoint[];
  readonly kickUs: number;
  /** The motor has full voltage from here on; Infinity where it never has. */
  readonly fullUs: number;
  /** The bypass closes. */
  readonly bypassUs: number;
  /** The thermal image reaches its trip. */
  readonly tripUs: number;
  /** The last moment that was reckoned: afterwards speed and current stay. */
  readonly settledUs: number;
  /** Its way ends short of full voltage. */
  readonly stalls: boolean;
  readonly breaksLoose: boolean;
}

/** What the output does. */
export type Motion =
  | { readonly kind: 'off' }
  /** Not fed, the shaft still turning by itself. */
  | { readonly kind: 'coast' }
  | {
      readonly kind: 'start';
      readonly direction: Direction;
      readonly run: PlannedRun;
      readonly limitUs: number;
    }
  | {
      readonly kind: 'softStop';
      readonly direction: Direction;
      readonly run: PlannedRun;
      readonly endUs: number;
    }
  /** Poles that conduct although nobody asks feed it. */
  | {
      readonly kind: 'unasked';
      readonly direction: Direction;
      readonly phases: 2 | 3;
      readonly run: PlannedRun;
    }
  | {
      readonly kind: 'brake';
      readonly direction: Direction;
      readonly run: PlannedRun;
      readonly endUs: number;
    };

/** Thermal image of the motor while nothing drives it along a run: from a value it nears another. */
export interface Heat {
  readonly value: number;
  readonly atUs: number;
  readonly toward: number;
  readonly tauS: number;
}

/** Whole state of a soft starter's command logic: plain, immutable, comparable. */
export interface StarterState {
  readonly levels: StarterLevels;
  readonly control: 'off' | 'startingUp' | 'on';
  readonly readyUs: number;
  readonly fault: StarterFault | null;
  /** Run levels present now are not followed until all of them have been open. */
  readonly needFresh: boolean;
  /** Run that a pulse has latched. */
  readonly latch: Direction;
  /** First of two directions while both are asserted. */
  readonly firstDirection: Direction;
  readonly motion: Motion;
  /** Moment from which the motor is no longer fed; −Infinity where it never was. */
  readonly unfedUs: number;
  readonly lastDirection: Direction;
  /** −1 where the supply turns the other way. */
  readonly rotation: 1 | -1;
  /** Run asked without mains: since when, or Infinity. */
  readonly missingUs: number;
  /** Two of three phases while asked or under load: since when, or Infinity. */
  readonly phaseUs: number;
  readonly stopReturnedUs: number;
  /** Automatic resets left, and when the next is tried. */
  readonly resetsLeft: number;
  readonly autoResetUs: number;
  readonly heat: Heat;
  /** The line contactor is asked for since; Infinity where it is not. */
  readonly lineAskedUs: number;
  /** A pole that conducts unasked is measured since; Infinity where none is. */
  readonly shortUs: number;
}
