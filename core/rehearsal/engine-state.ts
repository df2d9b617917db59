import type { Deed, Mode } from '../circuit/index.js';
import type { Engine } from './engine.js';

/** Everything that changes while a rehearsal runs; device states are immutable, so a copy holds references only. */
export interface EngineState {
  t: number;
  states: readonly unknown[];
  senses: readonly (readonly number[])[];
  /** Next time at which each device changes by itself. */
  wakes: readonly number[];
  modes: readonly Mode[] | undefined;
  solution: number;
  lengths: { segments: number[]; instants: number; events: number; solutions: number };
}

export interface EngineOptions {
  /** Factorise anew each time; for tests. */
  readonly cached?: boolean;
  /** Order in which devices are laid in; for tests: results do not depend on it. */
  readonly order?: readonly number[];
  /** Signals that are recorded; all of them where absent. */
  readonly only?: readonly string[];
  /** Hears of every network the run goes through. */
  readonly onSolved?: (solved: SolvedMoment, engine: Engine) => void;
  /** Hears of every instant when it has come to rest. */
  readonly onSettled?: (engine: Engine) => void;
}

/** A network of the run: what the devices were, and what each of them sensed in it. */
export interface SolvedMoment {
  readonly t: number;
  /** The same for networks that are electrically the same, but for the analogue output. */
  readonly key: string;
  readonly states: readonly unknown[];
  readonly senses: readonly (readonly number[])[];
  readonly modes: readonly Mode[] | undefined;
  /** The network itself, where it is asked for. */
  readonly board?: KeptBoard;
}

/** Conductances and sources of a network, apart from the board they were written on. */
export interface KeptBoard {
  readonly g: Float64Array;
  readonly emf: Float64Array;
  readonly acRe: Float64Array;
  readonly acIm: Float64Array;
  readonly modal: readonly { readonly volts: number; readonly amps: number; readonly g: number }[];
}

/** A deed at its time in integer microseconds. */
export interface TimedAct {
  readonly t: number;
  readonly act: Deed;
}
