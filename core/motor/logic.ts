import type { Path, Stretch } from '../numeric/index.js';
import type { FullVoltage } from './full-voltage.js';
import type { LoadCurve } from './load-curve.js';

/** What the device asks of its output: nothing, a frequency along a path, direct current that brakes, or a share of the supply's voltage, which moves the shaft along a path. */
export type OutputDemand =
  | { readonly kind: 'off' }
  | { readonly kind: 'frequency'; readonly path: Path }
  | { readonly kind: 'directCurrent'; readonly path: Path }
  | { readonly kind: 'voltage'; readonly path: Path };

/** What a device's logic asks of its terminals and of the shaft at one moment. */
export interface Demand {
  readonly output: OutputDemand;
  /** Relay tasks by name: a relay whose task is true pulls in. */
  readonly relays: Readonly<Record<string, boolean>>;
  /** Whether the device's own supplies, 24 V and 10 V, are up. */
  readonly supplies: boolean;
  /** What analogue outputs show, by what they are set to show, as a share of the highest frequency with its slope. */
  readonly analogue: Readonly<Record<string, Stretch>>;
}

/** What the terminal block and the shaft tell the logic at one moment. */
export interface Reading {
  /** Level of every task that an input holds; several inputs of one task are joined by or. */
  readonly tasks: Readonly<Record<string, 0 | 1>>;
  /** Enable channels; 1 where the device has none. */
  readonly enableA: 0 | 1;
  readonly enableB: 0 | 1;
  /** 0 no phase, 1 a phase missing, 2 all there. */
  readonly mains: 0 | 1 | 2;
  /** +1 where the supply turns as L1, L2, L3; −1 the other way; 0 where it cannot be seen. */
  readonly rotation: number;
  readonly controlSupply: 0 | 1;
  /** 1 cold or not watched. */
  readonly thermistor: 0 | 1;
  /** Analogue inputs in the units of their range (V or mA), in the order of the terminals. */
  readonly analogue: readonly number[];
  /** Dial of the device's own panel, 0 … 1. */
  readonly panelDial: number;
  readonly keys: Readonly<Record<'start' | 'stop' | 'reset' | 'up' | 'down', boolean>>;
  /** Speed of the shaft now, as Hz, and whether it still turns by itself. */
  readonly shaftHz: number;
  readonly shaftTurns: boolean;
}

/** What an observer sees of a device. */
export interface DeviceView {
  /** One of the logic's states. */
  readonly state: string;
  /** Output frequency, negative in reverse. */
  readonly hz: number;
  readonly fault: string | null;
  readonly blockedBy: string | null;
  /** Frequency set at its keypad, Hz; absent where it has none of its own. */
  readonly keypadHz?: number;
}

/** One condition for running, as the logic sees it; what is open on its way is for the circuit to say. */
export interface LogicCondition {
  readonly code: string;
  readonly met: boolean;
  readonly args: Readonly<Record<string, number | string | boolean>>;
  /** What it concerns: tasks whose input is to be followed, the reference, or the device itself. */
  readonly about: { readonly tasks: readonly string[] } | 'reference' | 'device';
  /** The wire of the task is to be followed: an open place explains the condition. */
  readonly follow?: boolean;
}

/** What the logic wants the circuit to be asked at this place among its conditions. */
export interface CircuitQuestion {
  readonly ask: 'enables' | 'common' | 'warnings' | 'mains';
}

/**
 * What a drive or a soft starter does with what its terminals tell: pure functions over a small immutable state. `step` is
 * the only one that moves it; `view`, `demand` and `why` only read.
 */
export interface DeviceLogic<S, I> {
  /** Names of its states, for traces. */
  readonly states: readonly string[];
  /** Names of the faults it may keep, for traces. */
  readonly faults: readonly string[];
  /** Its own relay gives it its mains, when a run is asked: it asks for them itself among its conditions. */
  readonly mainsOnDemand?: boolean;
  /** What it shows beside its view, as its signals are called after `device.`. */
  readonly shows?: readonly { readonly id: string; readonly unit: string }[];
  init(): S;
  /** What of a reading the logic goes by; the same object where nothing it goes by has changed. */
  sense(reading: Reading, before: S): I;
  /** The same object comes back when nothing changed. */
  step(s: S, inputs: I, t: number): S;
  wake(s: S, t: number): number;
  view(s: S, t: number): DeviceView;
  demand(s: S, t: number): Demand;
  /** The signals of `shows` as they go on from t. */
  shown?(s: S, t: number): readonly Stretch[];
  /** Conditions for running in the order in which they are to be looked at. */
  why(s: S, t: number): readonly (LogicCondition | CircuitQuestion)[];
  /** The state without stamps that can no longer matter at t. */
  rested(s: S, t: number): S;
}

/** What of the plates the logic of a device needs. */
export interface InstallFacts {
  /** Voltage between two phases, or of the one phase, V. */
  readonly lineV: number;
  /** Power the load draws at a frequency, growing with a power of the speed: torque constant 0, linear 1, square 2. */
  readonly load: { readonly watts: number; readonly atHz: number; readonly exponent: 0 | 1 | 2 };
  /** What a slowing load gives back; undefined where its mass is not known. */
  readonly braking?: BrakingFacts;
  /** Time in which the free shaft runs down from a frequency, s; an assumed one where it is not known. */
  coastS(fromHz: number): number;
  /** Motor at the voltage of the supply, inertia and load: what a starter feeds; usual ones where they are not entered. */
  readonly fed: FedFacts;
  /** What inside the device does not work, a word for each. */
  readonly failed?: readonly string[];
}

/** What the plates tell of a motor that is fed at the frequency of the supply. */
export interface FedFacts {
  readonly motor: FullVoltage;
  readonly inertiaKgm2: number;
  readonly load: LoadCurve;
  readonly polePairs: number;
  /** A data sheet tells how the torque goes between standstill and breakdown. */
  readonly shapeKnown?: boolean;
  /** What is not entered and taken as usual: the run-up is an estimate then. */
  readonly assumed: readonly string[];
}

/** What the plates tell of a load that is slowed down by a device that changes its frequency. */
export interface BrakingFacts {
  /** Motor and load at the motor. */
  readonly inertiaKgm2: number;
  /** Speed of the shaft for each Hz by the plate, rad/s. */
  readonly radPerHz: number;
  /** Torque that the losses of motor and device take up, Nm. */
  readonly lossNm: number;
  /** Torque of the load that helps, Nm at `load.atHz`; nothing where it drives itself. */
  readonly helpNm: number;
  /** Braking resistor that is fitted, Ω. */
  readonly resistorOhm?: number;
  /** Voltage at which a separate braking unit switches it, V. */
  readonly unitV?: number;
}

/** What others ask of an installed device, whatever it is. */
export interface DeviceFacts {
  /** Longest time any travel between standstill and full speed takes, ms. */
  readonly travelMs: number;
  /** Highest output frequency, Hz. */
  readonly maxHz: number;
  /** Terminal of the analogue input that gives the reference, where one does. */
  readonly referenceInput: string | undefined;
  /** A dial on the device itself gives the reference. */
  readonly panelDial: boolean;
  /** The keypad has a frequency of its own, and gives the speed at least at one place of command. */
  readonly keypadHasSpeed: boolean;
  /** Time for which an input must stand before it counts, ms. */
  readonly filterMs: number;
  /** Time for which the two channels of an enable may differ, ms. */
  readonly discrepancyMs: number;
  /** Heat that one start puts into the image of the motor, % of what trips it; 0 where the speed is changed. */
  readonly startHeatPct: number;
  /** Time between the end of feeding and the next start, s. */
  readonly waitS: number;
  /** Mains taken away under load are a fault that its reset key clears. */
  readonly cutNeedsReset: boolean;
  /** What of motor and load is not entered, and taken as usual. */
  readonly assumed: readonly string[];
}
