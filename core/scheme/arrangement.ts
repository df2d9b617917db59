import type { ContactsSwitch, InputTask, OutputTask } from '../catalogue/index.js';
import type { Scheme, WireSpec, Wiring } from '../job/index.js';

export type Direction = 'forward' | 'reverse';
export type { ContactsSwitch };

/** Id of the drive or soft starter in a new wiring; an older one keeps the name it has. */
export const DEVICE_ID = 'device';
/** Ids of what every wiring has beside its device. */
export const lineIds = {
  supply: 'supply',
  isolator: 'isolator',
  breaker: 'breaker',
  filter: 'filter.input',
  reactor: 'reactor.input',
  outputFilter: 'filter.output',
  motorIsolator: 'isolator.motor',
  resistor: 'resistor.brake',
  brakingUnit: 'unit.brake',
  strip: 'strip.control',
  motor: 'motor',
  /** One fuse a pole, by the number of the pole. */
  fuse: 'fuse.line',
} as const;

/** Plug of a cable of the field, by the cable's number. */
export const plugOf = (cable: string): string => `plug.${cable}`;

type Station = `${'.'}${number}`;
/** What can be done at a station or to a machine, by the function it gives or takes. */
export type OperationId =
  | 'run'
  | 'run.forward'
  | 'run.reverse'
  | 'direction'
  | 'start'
  | `start${Station}`
  | 'start.forward'
  | 'start.reverse'
  | `start.${'forward' | 'reverse'}${Station}`
  | 'stop'
  | `stop${Station}`
  | 'estop'
  | 'power.on'
  | 'power.off'
  | `interlock.${NonNullable<Scheme['interlocks']>[number]}`
  | 'interlock.isolator'
  | 'interlock.resistor'
  | 'interlock.output'
  | 'foot'
  | 'thermistor'
  | `end.${Direction}`
  | `preset.${string}`
  | InputTask;

/** A terminal of the device that the plan has yet to choose. */
export type DeviceSymbol =
  | '@feed'
  | '@return'
  | '@supply24'
  | '@zero'
  | '@controlA'
  | '@controlB'
  | '@thermistorA'
  | '@thermistorB'
  | '@enableA'
  | '@enableB'
  | '@reference10'
  | '@ai1'
  | '@ai2'
  | '@analogueCommon'
  | '@aout'
  | `@in:${string}`
  | `@out:${OutputTask}:${'common' | 'no' | 'nc'}`;
/** A landing `device:terminal` of a part, or a symbol that a terminal of the device fills. */
export type PointRef = `${string}:${string}` | DeviceSymbol;

/** Whether a point is a landing already. */
export const isSymbol = (at: PointRef): at is DeviceSymbol => at.startsWith('@');

/** Where a device is mounted: wires between places run in cables. */
export type Mounting = 'panel' | 'station' | 'machine';

/** A device the wishes call for. Its id is its role. */
export interface ArrangedDevice {
  readonly id: string;
  readonly kind: string;
  readonly tag: string;
  readonly place: Mounting;
  readonly params: Readonly<Record<string, number | string | boolean>>;
  readonly positions?: Wiring['devices'][string]['positions'];
  readonly contacts?: Wiring['devices'][string]['contacts'];
}

/** A function that an input terminal must carry, and the device whose contact gives it. */
export interface InputFunction {
  /** Role in the station: `run.forward`. */
  readonly id: string;
  /** Task in the vocabulary of the control semantics. */
  readonly task: InputTask;
  readonly device: string;
  /** Wish it comes from, so that a conflict can be named in the person's words. */
  readonly wish: string;
}

/** A task that an output of the device must carry; its contact is wired where `wired` says so. */
export interface OutputFunction {
  readonly task: OutputTask;
  readonly wish: string;
  readonly wired: boolean;
  /** Its break contact is wired. */
  readonly rests?: boolean;
}

/** What a hand, a process or a controller does to give a function: a device moved out of its rest. */
export interface Operation {
  readonly device: string;
  /** Position to turn to; pressed where absent. */
  readonly position?: string;
}

/** One potential as a chain of landings and symbols. */
export interface Net {
  readonly potential: string;
  readonly class: WireSpec['class'];
  /** Landings in the order of the chain, each with the name of the wire that reaches it. */
  readonly points: readonly { readonly at: PointRef; readonly wire: string }[];
}

/** A conflict between wishes that no device can solve. */
export interface WishConflict {
  readonly wishes: readonly string[];
  readonly code: string;
}

/** What the wishes amount to, before any terminal is chosen. */
export interface Arrangement {
  readonly devices: readonly ArrangedDevice[];
  readonly inputs: readonly InputFunction[];
  readonly outputs: readonly OutputFunction[];
  readonly nets: readonly Net[];
  readonly operations: Readonly<Partial<Record<OperationId, Operation>>>;
  /** How a run is given: by something that stays, or by a pulse that is kept until a stop opens. */
  readonly givenBy: 'level' | 'pulse';
  /** Operations that start the motor, by direction; with a direction selector the same operation starts both. */
  readonly starts: Readonly<Partial<Record<Direction, OperationId>>>;
  /** Operations of a stop, in the order of the stations. */
  readonly stops: readonly OperationId[];
  /** Operation that turns the direction, where there is one. */
  readonly direction?: OperationId;
  readonly jogs: Readonly<Partial<Record<Direction, OperationId>>>;
  /** Operations that close a line contactor, where power has to be given first, and open it; without the second one the emergency stop alone does. */
  readonly power?: { readonly on: OperationId; readonly off?: OperationId };
  readonly estop?: OperationId;
  /** Operations that open a condition for a run. */
  readonly interlocks: readonly OperationId[];
  /** What keeps the guard shut until the machine stands: its magnet, and the time after which it lets go, ms. */
  readonly lock?: { readonly device: string; readonly ms: number };
  /** Each pole of the device lies in series with a winding of the motor, which has six leads. */
  readonly insideDelta?: true;
  /** Operation by which the sensors of the motor grow hot, where the device watches them. */
  readonly thermistor?: OperationId;
  /** Operations that open one direction at the end of its way. */
  readonly ends: Readonly<Partial<Record<Direction, OperationId>>>;
  /** Operations that choose a preset, in the order of the presets. */
  readonly presets: readonly OperationId[];
  /** Start contacts fed through the stop contacts. */
  readonly chained: boolean;
  /** Device whose setting gives the reference: a dial, a source, or the device's own dial. */
  readonly dial: string | undefined;
  /** Time between the command and the earliest start, ms: a start warning, the answer of a part of the machine. */
  readonly warningMs: number;
  /** What of it a horn sounds, ms. */
  readonly hornMs: number;
  /** Part of the machine that has to answer before the motor runs, and how long it takes, ms. */
  readonly permission?: { readonly device: string; readonly ms: number };
  /** Device that switches the supply of the device as a whole. */
  readonly mainBreaker: string;
  /** Supply disconnecting device of the machine, where it is entered: everything is tapped after it. */
  readonly isolator?: string;
  /** Breakers of supplies beside the main one: a control supply can be lost by itself. */
  readonly ownBreakers: readonly string[];
  /** Breakers of everything that can be lost while the rest stays: those, and the main one where the control is fed beside it. */
  readonly lossBreakers: readonly string[];
  /** A line contactor in the supply of the drive. */
  readonly contactor?: string;
  /** Drive's enable inputs are taken by the emergency stop. */
  readonly usesEnables: boolean;
  /** Meanings that settings must have, by role or policy, each with the wish it comes from. */
  readonly meanings: readonly {
    readonly role: string;
    readonly value: number | string | boolean;
    readonly wish: string;
  }[];
  readonly conflicts: readonly WishConflict[];
}
