import type { ModalValue } from '../circuit/index.js';
import type { Stretch } from '../drive/index.js';
import type { Act, Where } from '../job/index.js';

/** Where a device writes what it is electrically at one moment: conductances, sources and their slopes. */
export interface Board {
  readonly g: Float64Array;
  readonly emf: Float64Array;
  readonly j: Float64Array;
  readonly modal: ModalValue[];
  /** Slope of `emf`, V/s. */
  readonly emfSlope: Float64Array;
  /** Real and imaginary part of alternating sources, V. */
  readonly acRe: Float64Array;
  readonly acIm: Float64Array;
}

/** What a device may measure of one solution. */
export interface Probe {
  /** Direct voltage of one landing above another, V; null where nothing joins them. */
  volts(plus: number, minus: number): number | null;
  /** Alternating voltage between two landings, V; null where nothing joins them. */
  acVolts(plus: number, minus: number): number | null;
}

export interface SignalSpec {
  readonly id: string;
  readonly of: Where;
  readonly unit: string;
  readonly kind: 'level' | 'state' | 'value';
  /** Names of a state's values, by number. */
  readonly states?: readonly string[];
}

/** A voltage between two landings whose passing of a threshold the device must hear of. */
export interface Threshold {
  readonly plus: number;
  readonly minus: number;
  readonly volts: number;
}

/**
 * A device: pure functions over a small immutable state. `step` returns the same object when nothing changed; timers are
 * numbers in the state; no closures, dates or chance in it.
 */
export interface Device<S> {
  readonly id: string;
  readonly signals: readonly SignalSpec[];
  /** What it stamps and shows changes with time alone, not only with its state. */
  readonly moves: boolean;
  init(): S;
  /** An act of the script on this device; the same object where it does not concern it. */
  act(s: S, act: Act): S;
  stamp(s: S, t: number, board: Board): void;
  /** Small integers only: levels, bands, analogue in 1/10000. */
  sense(s: S, probe: Probe): readonly number[];
  step(s: S, sensed: readonly number[], t: number): S;
  /** Its next timer, filter end or ramp break after t; Infinity when it waits for nothing. */
  wake(s: S, t: number): number;
  thresholds(s: S): readonly Threshold[];
  /** Value of each signal at t, as a stretch. */
  observe(s: S, t: number): readonly Stretch[];
}
