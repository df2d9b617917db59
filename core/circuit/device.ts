import type { Act, Where } from '../job/index.js';
import type { Stretch } from '../numeric/index.js';
import type { ModalValue } from './modes.js';

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
  /** +1 where three landings follow one another as L1, L2, L3 do, −1 the other way, 0 where no rotation is to be seen. */
  rotation(a: number, b: number, c: number): -1 | 0 | 1;
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

/** A switch of the network thrown from outside the job: a fault that comes or goes. */
export interface SwitchAct {
  readonly do: 'switch';
  readonly atMs: number;
  readonly switch: number;
  readonly on: boolean;
}

/** Anything that can be done to an installation while it runs. */
export type Deed = Act | SwitchAct;

/** State of another device before the round. */
export type Peers = (id: string) => unknown;

/**
 * A device: pure functions over a small immutable state. `step` returns the same object when nothing changed; timers are
 * numbers in the state; no closures, dates or chance in it.
 */
export interface Device<S> {
  readonly id: string;
  readonly signals: readonly SignalSpec[];
  /** What it stamps changes with time alone, not only with its state. */
  readonly stampsWithTime: boolean;
  /** What it shows changes with time alone between its wakes. */
  readonly showsWithTime: boolean;
  /** Devices whose state it reads when it steps: it is stepped after one of them changed. */
  readonly listens: readonly string[];
  init(): S;
  /** A deed on this device; the same object where it does not concern it. */
  act(s: S, act: Deed, t: number): S;
  stamp(s: S, t: number, board: Board): void;
  /** Small integers only: levels, bands, analogue in 1/10000. */
  sense(s: S, probe: Probe): readonly number[];
  /** @param peers states of the devices it listens to, from before the round */
  step(s: S, sensed: readonly number[], t: number, peers: Peers): S;
  /** Its next timer, filter end or ramp break after t; Infinity when it waits for nothing. */
  wake(s: S, t: number): number;
  thresholds(s: S): readonly Threshold[];
  /** Value of each signal at t, as a stretch. */
  observe(s: S, t: number): readonly Stretch[];
  /** The state without stamps that can no longer matter at t, so that equal situations are equal states. */
  rested(s: S, t: number): S;
}

const none: readonly never[] = [];

/** What a device that neither senses, times nor listens to anything answers. */
export const inert = {
  stampsWithTime: false,
  showsWithTime: false,
  listens: none as readonly string[],
  sense: () => none,
  wake: () => Infinity,
  thresholds: () => none,
  rested: <S>(s: S): S => s,
};
