import type { Mode, ModalEdge } from '../circuit/index.js';
import type { AnalogueScale, Control, Link } from '../drive/index.js';

/** Contacts worked by hand, by a process or by the supply. */
export interface InstalledContacts {
  readonly kind: 'contacts';
  readonly id: string;
  readonly tag: string;
  readonly positions: readonly string[];
  readonly rest: string;
  readonly momentary: boolean;
  /** Stays where it was put until it is let go by hand: an emergency stop. */
  readonly latching: boolean;
  readonly contacts: readonly { readonly edge: number; readonly closedIn: readonly string[] }[];
}

export interface InstalledDial {
  readonly kind: 'dial';
  readonly id: string;
  readonly tag: string;
  readonly ohm: number;
  /** Edge between the low end and the wiper, and between the wiper and the high end. */
  readonly lower: number;
  readonly upper: number;
}

/** Supply of one or three phases, star point at N and PE. */
export interface InstalledSupply {
  readonly kind: 'supply';
  readonly id: string;
  readonly tag: string;
  /** Voltage of a phase against N. */
  readonly phaseV: number;
  readonly phases: readonly { readonly phase: 'L1' | 'L2' | 'L3'; readonly edge: number }[];
  /** Edge between N and PE at the source. */
  readonly neutral: number;
}

/** A device with a coil: relay, contactor, timer relay, brake. */
export interface InstalledCoil {
  readonly kind: 'coil';
  readonly id: string;
  readonly tag: string;
  readonly coil: InstalledLoad['across'];
  readonly ac: boolean;
  readonly volts: number;
  readonly ohm: number;
  readonly operateUs: number;
  readonly releaseUs: number;
  /** Contacts that follow with the coil, and those that follow after the delay of a timer. */
  readonly makes: readonly number[];
  readonly breaks: readonly number[];
}

/** Something that only draws current between two terminals; it works above half its voltage. */
export interface InstalledLoad {
  readonly kind: 'load';
  readonly id: string;
  readonly tag: string;
  readonly across: { readonly edge: number; readonly a: number; readonly b: number };
  readonly ac: boolean;
  readonly volts: number;
  readonly ohm: number;
}

/** A 24 V supply: fed by alternating voltage at its primary, or always on where it has none. */
export interface InstalledPower {
  readonly kind: 'power';
  readonly id: string;
  readonly tag: string;
  readonly primary:
    | { readonly edge: number; readonly a: number; readonly b: number; readonly minV: number }
    | undefined;
  /** Direct supply with a current limit, or the secondary of a transformer. */
  readonly output: {
    readonly edge: number;
    readonly modal: number | undefined;
    readonly volts: number;
    readonly amps: number;
    readonly ohm: number;
  };
}

/** A source of a signal: 0 … 10 V behind 50 Ω, or 4 … 20 mA up to its compliance. */
export interface InstalledSource {
  readonly kind: 'source';
  readonly id: string;
  readonly tag: string;
  readonly gives: 'volts' | 'amps';
  readonly edge: number;
  readonly modal: number | undefined;
}

/** A transistor output: a drop while on, a leakage current while off. */
export interface InstalledTransistor {
  readonly kind: 'transistor';
  readonly id: string;
  readonly tag: string;
  readonly edge: number;
  readonly modal: number;
  readonly dropV: number;
  readonly leakageA: number;
}

export interface InstalledFuse {
  readonly kind: 'fuse';
  readonly id: string;
  readonly tag: string;
  readonly across: InstalledLoad['across'];
  readonly amps: number;
}

/** Two landings to which a bridge, a battery or a calibrator can be put. */
export interface InstalledHook {
  readonly kind: 'hook';
  readonly id: string;
  readonly a: string;
  readonly b: string;
  readonly edge: number;
  readonly modal: number;
}

export interface InstalledInput {
  readonly terminal: string;
  readonly edge: number;
  readonly ohm: number;
  /** Landings whose difference, without sign, is the level. */
  readonly plus: number;
  readonly minus: number;
  readonly onUv: number;
  readonly offUv: number;
  readonly task: string;
  /** The task is given by the open contact. */
  readonly inverted: boolean;
}

export type InstalledEnable = Omit<InstalledInput, 'task' | 'inverted'> & {
  readonly channel: 'A' | 'B';
};

export interface InstalledDrive {
  readonly kind: 'drive';
  readonly id: string;
  readonly control: Control;
  readonly link: Link | undefined;
  readonly supply24:
    | {
        readonly edge: number;
        readonly modal: number;
        readonly volts: number;
        readonly amps: number;
      }
    | undefined;
  readonly reference10:
    { readonly edge: number; readonly volts: number; readonly ohm: number } | undefined;
  readonly inputs: readonly InstalledInput[];
  readonly enables: readonly InstalledEnable[];
  /** Analogue inputs that give no reference: they only load what is wired to them. */
  readonly idleAnalogue: readonly { readonly edge: number; readonly ohm: number }[];
  /** Output frequency from which a brake is released, Hz. */
  readonly brakeReleaseHz: number;
  readonly analogue:
    | {
        readonly terminal: string;
        readonly edge: number;
        readonly plus: number;
        readonly minus: number;
        readonly voltageOhm: number;
        readonly currentOhm: number;
        readonly fullScale: number;
        readonly liveZero: boolean;
        readonly scale: AnalogueScale;
        readonly used: boolean;
      }
    | undefined;
  readonly output:
    | {
        readonly terminal: string;
        readonly edge: number;
        readonly shows: string;
        readonly voltsPerHz: number;
      }
    | undefined;
  readonly relays: readonly {
    readonly id: string;
    readonly task: string;
    readonly no: readonly number[];
    readonly nc: readonly number[];
  }[];
  readonly mains: {
    readonly landings: readonly number[];
    readonly edges: readonly number[];
    readonly minV: number;
  };
  /** Edges joined inside the device whatever happens. */
  readonly joined: readonly number[];
  readonly links: readonly {
    readonly id: string;
    readonly position: string;
    readonly positions: Readonly<
      Record<string, { readonly edges: readonly number[]; readonly currentMode: boolean | null }>
    >;
  }[];
  readonly polePairs: number | undefined;
}

export interface InstalledWire {
  readonly id: string;
  readonly number: string;
  readonly edge: number;
  readonly ohm: number;
}

export type InstalledDevice =
  | InstalledContacts
  | InstalledDial
  | InstalledSupply
  | InstalledDrive
  | InstalledCoil
  | InstalledLoad
  | InstalledPower
  | InstalledSource
  | InstalledTransistor
  | InstalledFuse
  | InstalledHook;

/** What is really there: compiled, plain, and can be posted to a worker. */
export interface Installation {
  readonly hash: string;
  readonly settingsFrom: 'planned' | 'factory' | { readonly snapshot: string };
  readonly landings: readonly string[];
  readonly reference: number;
  readonly edgeA: readonly number[];
  readonly edgeB: readonly number[];
  readonly modal: readonly ModalEdge[];
  readonly wires: readonly InstalledWire[];
  readonly devices: readonly InstalledDevice[];
  readonly firstModes?: readonly Mode[];
}
