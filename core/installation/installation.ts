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

/** Three-phase supply, star point at PE. */
export interface InstalledSupply {
  readonly kind: 'supply';
  readonly id: string;
  readonly lineV: number;
  readonly edges: readonly number[];
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
}

export interface InstalledDrive {
  readonly kind: 'drive';
  readonly id: string;
  readonly control: Control;
  readonly link: Link | undefined;
  readonly supply24: { readonly edge: number; readonly modal: number; readonly volts: number; readonly amps: number } | undefined;
  readonly reference10: { readonly edge: number; readonly volts: number; readonly ohm: number } | undefined;
  readonly inputs: readonly InstalledInput[];
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
  readonly output: { readonly terminal: string; readonly edge: number; readonly shows: string; readonly voltsPerHz: number } | undefined;
  readonly relays: readonly { readonly id: string; readonly task: string; readonly no: readonly number[]; readonly nc: readonly number[] }[];
  readonly mains: { readonly landings: readonly number[]; readonly edges: readonly number[]; readonly minV: number };
  /** Edges joined inside the device whatever happens. */
  readonly joined: readonly number[];
  readonly links: readonly {
    readonly id: string;
    readonly position: string;
    readonly positions: Readonly<Record<string, { readonly edges: readonly number[]; readonly currentMode: boolean | null }>>;
  }[];
  readonly polePairs: number | undefined;
}

export interface InstalledWire {
  readonly id: string;
  readonly number: string;
  readonly edge: number;
  readonly ohm: number;
}

export type InstalledDevice = InstalledContacts | InstalledDial | InstalledSupply | InstalledDrive;

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
