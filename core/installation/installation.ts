import type { Across, Edge, ModalEdge } from '../circuit/index.js';
import type { DeviceFacts, InstalledShaft } from '../motor/index.js';
import type { InstalledPart } from '../parts/index.js';
import type { LogicSpec } from './logics.js';
import type { Withstood } from './withstand.js';

/** An input whose level is the voltage between two landings, without sign. */
export interface InstalledInput {
  readonly terminal: string;
  readonly edge: number;
  readonly ohm: number;
  readonly plus: number;
  readonly minus: number;
  readonly onUv: number;
  readonly offUv: number;
  /** Alternating voltage switches it. */
  readonly ac: boolean;
  readonly task: string;
  /** The task is given by the open contact. */
  readonly inverted: boolean;
}

export type InstalledEnable = InstalledInput & { readonly channel: 'A' | 'B' };

export interface InstalledAnalogue {
  readonly terminal: string;
  readonly edge: number;
  readonly plus: number;
  readonly minus: number;
  readonly voltageOhm: number;
  readonly currentOhm: number;
  /** Upper end of its range, V or mA. */
  readonly fullScale: number;
}

export interface InstalledRelay {
  readonly id: string;
  readonly task: string;
  /** What its contacts may switch, A. */
  readonly amps: number;
  readonly no: readonly number[];
  readonly nc: readonly number[];
}

export interface InstalledLink {
  readonly id: string;
  readonly position: string;
  readonly positions: Readonly<
    Record<
      string,
      {
        readonly edges: readonly number[];
        /** Analogue terminal that this position switches, and whether to current. */
        readonly analogue: { readonly terminal: string; readonly current: boolean } | undefined;
      }
    >
  >;
}

/** The drive or soft starter: its terminal block, made from the profile, and what its logic goes by. */
export interface InstalledDevice {
  readonly kind: 'device';
  readonly id: string;
  readonly tag: string;
  readonly spec: LogicSpec;
  readonly facts: DeviceFacts;
  /** Device id of the shaft it drives. */
  readonly shaft: string;
  readonly inputs: readonly InstalledInput[];
  readonly enables: readonly InstalledEnable[];
  readonly analogue: readonly InstalledAnalogue[];
  readonly output:
    | {
        readonly terminal: string;
        readonly edge: number;
        readonly shows: string;
        readonly voltsPerHz: number;
      }
    | undefined;
  readonly relays: readonly InstalledRelay[];
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
  readonly controlSupply:
    (Across & { readonly ohm: number; readonly minV: number; readonly ac: boolean }) | undefined;
  readonly thermistor:
    (Across & { readonly tripOhm: number; readonly resetOhm: number }) | undefined;
  readonly mains: {
    /** Phases and neutral in the order of the terminals, and their landings. */
    readonly phases: readonly string[];
    readonly landings: readonly number[];
    readonly edges: readonly number[];
    readonly minV: number;
    /** Landings at which the rotation of the supply is seen; empty where it has none. */
    readonly rotation: readonly number[];
  };
  /** Edges joined inside the device whatever happens. */
  readonly joined: readonly number[];
  readonly links: readonly InstalledLink[];
  /** What its terminals withstand, of those that something foreign can reach; from where volts are counted. */
  readonly withstand: readonly Withstood[];
  readonly reference: number;
  /** A protective conductor of the supply, from where volts are counted as well. */
  readonly earth: number | undefined;
}

export type Installed = InstalledPart | InstalledDevice | InstalledShaft;

/** What is really there: compiled, plain, and can be posted to a worker. */
export interface Installation {
  readonly settingsFrom: 'planned' | 'factory' | { readonly snapshot: string };
  readonly landings: readonly string[];
  readonly reference: number;
  readonly edgeA: readonly number[];
  readonly edgeB: readonly number[];
  /** Whose each edge is, what it is, and its two terminals. */
  readonly edges: readonly Edge[];
  readonly modal: readonly ModalEdge[];
  readonly devices: readonly Installed[];
  readonly device: InstalledDevice;
  readonly shaft: InstalledShaft;
}

/** The parts of a kind among what is installed. */
export function installedOf<K extends Installed['kind']>(
  { devices }: Pick<Installation, 'devices'>,
  kind: K,
): Extract<Installed, { kind: K }>[] {
  return devices.filter((d): d is Extract<Installed, { kind: K }> => d.kind === kind);
}

/** Tag of what is installed; its id where it has none. */
export function tagIn({ devices }: Pick<Installation, 'devices'>, id: string): string {
  return devices.find((d) => d.id === id)?.tag ?? id;
}
