import type { Across } from '../circuit/index.js';

interface Installed {
  readonly id: string;
  readonly tag: string;
}

/** Contacts worked by hand, by a process or by the supply. */
export interface InstalledContacts extends Installed {
  readonly kind: 'contacts';
  readonly positions: readonly string[];
  readonly rest: string;
  readonly momentary: boolean;
  /** Stays where it was put until it is let go by hand: an emergency stop. */
  readonly latching: boolean;
  /** Contacts by their first terminal. */
  readonly contacts: readonly {
    readonly edge: number;
    readonly terminal: string;
    readonly closedIn: readonly string[];
  }[];
}

export interface InstalledDial extends Installed {
  readonly kind: 'dial';
  readonly ohm: number;
  /** Edge between the low end and the wiper, and between the wiper and the high end. */
  readonly lower: number;
  readonly upper: number;
}

/** Supply of one or three phases, star point at N and PE. */
export interface InstalledSupply extends Installed {
  readonly kind: 'supply';
  /** Voltage of a phase against N. */
  readonly phaseV: number;
  readonly phases: readonly { readonly phase: 'L1' | 'L2' | 'L3'; readonly edge: number }[];
  /** Edge between N and PE at the source. */
  readonly neutral: number;
}

/** A device with a coil: relay, contactor, timer relay, brake. */
export interface InstalledCoil extends Installed {
  readonly kind: 'coil';
  readonly coil: Across;
  readonly ac: boolean;
  readonly volts: number;
  readonly ohm: number;
  readonly operateUs: number;
  readonly releaseUs: number;
  /** What a contact may switch, A; 0 where it has none. */
  readonly contactA: number;
  /** Contacts that follow with the coil, and those that follow after the delay of a timer. */
  readonly makes: readonly number[];
  readonly breaks: readonly number[];
  /** Contacts that move a while after the others, where that is tried; no two of a relay move together. */
  readonly late: readonly number[];
  readonly lagUs: number;
  /** It is a part of the machine that goes its way and answers, no relay. */
  readonly answers?: true;
  /** Its coil is burnt through: it never pulls in. */
  readonly dead?: boolean;
}

/** Something that only draws current between two terminals; it works above half its voltage. */
export interface InstalledLoad extends Installed {
  readonly kind: 'load';
  readonly across: Across;
  readonly ac: boolean;
  readonly volts: number;
  readonly ohm: number;
  /** It is burnt through: it never works. */
  readonly dead?: boolean;
}

/** A 24 V supply or a transformer: fed by alternating voltage at its primary, or always on where it has none. */
export interface InstalledPower extends Installed {
  readonly kind: 'power';
  readonly primary: (Across & { readonly minV: number }) | undefined;
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
export interface InstalledSource extends Installed {
  readonly kind: 'source';
  readonly gives: 'volts' | 'amps';
  readonly edge: number;
  readonly modal: number | undefined;
  /** The supply that its stage takes from outside, and the voltage below which it gives nothing. */
  readonly supply: (Across & { readonly ohm: number; readonly minV: number }) | undefined;
}

/** A transistor output: a drop while on, a leakage current while off. */
export interface InstalledTransistor extends Installed {
  readonly kind: 'transistor';
  readonly edge: number;
  readonly modal: number;
  readonly dropV: number;
  readonly leakageA: number;
}

export interface InstalledFuse extends Installed {
  readonly kind: 'fuse';
  readonly across: Across;
  readonly amps: number;
}

/** Two landings to which a hand can put a bridge, a battery or a calibrator. */
export interface InstalledHook extends Installed {
  readonly kind: 'hook';
  readonly a: string;
  readonly b: string;
  readonly edge: number;
  readonly modal: number;
}

export interface InstalledWire {
  readonly id: string;
  readonly number: string;
  readonly potential: string;
  readonly edge: number;
  readonly ohm: number;
}

/** All wires of a job as one device: each whole or broken. */
export interface InstalledWires extends Installed {
  readonly kind: 'wires';
  readonly wires: readonly InstalledWire[];
  /** Broken from the beginning, or never landed. */
  readonly open: readonly string[];
}

/** Switches that let faults come and go: each gives its edge a conductance of its own while it is thrown. */
export interface InstalledSwitches extends Installed {
  readonly kind: 'switches';
  readonly switches: readonly { readonly edge: number; readonly g: number }[];
  /** Thrown from the beginning: the panel is built so. */
  readonly thrown: readonly number[];
}

export type InstalledPart =
  | InstalledContacts
  | InstalledDial
  | InstalledSupply
  | InstalledCoil
  | InstalledLoad
  | InstalledPower
  | InstalledSource
  | InstalledTransistor
  | InstalledFuse
  | InstalledHook
  | InstalledWires
  | InstalledSwitches;
