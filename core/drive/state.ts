import type { Path } from '../numeric/index.js';
import type { InputName, Levels } from './vocabulary.js';
import type { Ramp, RampPair } from './ramp.js';

/** Faults the command logic knows. */
export const faultNames = [
  'undervoltage',
  'overvoltage',
  'overcurrent',
  'bothDirections',
  'enableDiscrepancy',
  'externalFault',
  'referenceLoss',
  'overload',
  'thermistor',
  'inputPhaseLoss',
] as const;
export type Fault = (typeof faultNames)[number];

/** +1 forward, −1 reverse, 0 none. */
export type Direction = -1 | 0 | 1;

/** What the output stage is doing. */
export type Motion =
  | { readonly kind: 'off' }
  /** Output off, the shaft still turning by itself. */
  | { readonly kind: 'coast' }
  | {
      readonly kind: 'ramp';
      readonly ramp: Ramp;
      readonly goalHz: number;
      readonly pair: RampPair;
      readonly purpose: Purpose;
      /** Moment at which the energy that comes back lifts the DC link to its trip; absent where it never does. */
      readonly tripUs?: number;
    }
  | {
      readonly kind: 'pause';
      readonly endUs: number;
      readonly goalHz: number;
      readonly pair: RampPair;
      readonly purpose: Purpose;
    }
  | { readonly kind: 'dc'; readonly path: Path };

export type Purpose = 'run' | 'jog' | 'stop';

/** DC link and logic: who is alive, and until when without supply. */
export interface Power {
  readonly logic: 'off' | 'poweringUp' | 'on';
  readonly readyUs: number;
  /** Moment the DC link falls below its threshold, while the supply is away; Infinity otherwise. */
  readonly linkLowUs: number;
  readonly linkUp: boolean;
  /** Moment the logic dies for lack of supply; Infinity while it is fed. */
  readonly logicDiesUs: number;
}

/** Whole state of a drive's command logic: plain, immutable, comparable. */
export interface DriveState {
  readonly raw: Levels;
  readonly levels: Levels;
  /** Inputs whose change waits for the filter: effective at this time. */
  readonly pending: Readonly<Partial<Record<InputName, number>>>;
  readonly power: Power;
  readonly fault: Fault | null;
  /** Both channels have been seen open since an enable discrepancy fault. */
  readonly channelsCycled: boolean;
  readonly discrepancyUs: number;
  /** Run demands present now are not followed until all of them have been open. */
  readonly needFresh: boolean;
  /** Three-wire latch, and the keypad's. */
  readonly latch: Direction;
  readonly keypadLatch: Direction;
  /** Direction carried over a change of place until the new place's command changes. */
  readonly carried: Direction;
  /** First of two directions, while both are asserted. */
  readonly firstDirection: Direction;
  readonly stopReturnedUs: number;
  readonly startEdgeUs: { readonly forward: number; readonly reverse: number };
  readonly startsTogether: boolean;
  /** A jog that came while running is refused until it is let go. */
  readonly jogRefused: boolean;
  readonly referenceHz: number;
  readonly referenceLost: boolean;
  readonly heldHz: number;
  /** Reference of the up and down inputs, and when it moves next. */
  readonly potHz: number;
  readonly potDueUs: number;
  /** The keypad's own frequency, moved by its up and down keys, and when it moves next. */
  readonly keypadHz: number;
  readonly keypadDueUs: number;
  readonly motion: Motion;
}
