import type { Layout } from '../circuit/index.js';
import type { Wiring } from '../job/index.js';
import type { InstalledPart } from './installed.js';

/** A part as a plan names it: its kind and what the plan fixes about it. */
export type PartOf = Pick<Wiring['devices'][string], 'kind' | 'params' | 'positions' | 'contacts'>;

/** A part with its place in a wiring. */
export type PlacedPart = PartOf & { readonly id: string; readonly tag: string };

/** Shape by which a part is drawn in a circuit. */
export type PartSymbol =
  | 'make'
  | 'break'
  | 'push'
  | 'mushroom'
  | 'selector'
  | 'process'
  | 'pole'
  | 'coil'
  | 'lamp'
  | 'sounder'
  | 'load'
  | 'meter'
  | 'resistor'
  | 'through'
  | 'fuse'
  | 'transformer'
  | 'source'
  | 'motor'
  | 'transistor';

/** Contacts that a hand, a process or the supply works. */
export interface ContactSet {
  /** Positions in the order a hand passes through them. */
  readonly positions: readonly string[];
  readonly rest: string;
  readonly contacts: readonly {
    readonly a: string;
    readonly b: string;
    readonly closedIn: readonly string[];
  }[];
  /** Goes back to rest by itself when it is let go. */
  readonly momentary?: boolean;
  /** Pressed in it stays until it is twisted or pulled out. */
  readonly latching?: boolean;
  readonly workedBy: 'hand' | 'process' | 'supply';
}

/** A coil: what pulls in, and which contacts then change. Times in ms (typical catalogue values). */
export interface CoilSpec {
  readonly coil: readonly [string, string];
  readonly makes: readonly (readonly [string, string])[];
  readonly breaks: readonly (readonly [string, string])[];
  readonly operateMs: number;
  readonly releaseMs: number;
  /** What a contact may switch, A at the voltage of its coil circuit; 0 where it has none. */
  readonly contactA: number;
  /** A part of the machine that goes its way and answers by its contacts, no relay. */
  readonly answers?: true;
}

/** Facts of the job that parts need beside their own. */
export interface Surroundings {
  /** Voltage between two phases, or of the one phase, V. */
  readonly lineV: number;
}

/** Everything there is to say about one kind of part. */
export interface Part {
  readonly kind: string;
  /** Letter of its tag (IEC 81346-2 letters where the trade uses them). */
  readonly letter: string;
  readonly symbol: PartSymbol;
  /** Terminals in the order in which they are drawn. */
  terminals(part: PartOf): readonly string[];
  /** Contacts of its own hand. */
  contacts?(part: PartOf): ContactSet;
  readonly coil?: CoilSpec;
  /** Only draws current: lamp, horn, meter, input of a controller. */
  readonly shows?: true;
  /** It is turned: the motor. */
  readonly turns?: true;
  /** It holds the shaft while its coil is dead: a spring brake. */
  readonly holds?: true;
  /** Pairs of terminals that it joins for what passes: a filter, a reactor. */
  through?(part: PartOf): readonly (readonly [string, string])[];
  /** Part of the supply and the motor circuit, not of the station. */
  readonly power?: true;
  /** It has metal that can be touched and more than extra-low voltage inside: it takes a protective conductor at `PE`. */
  exposed?(part: PartOf): boolean;
  /** Lays it into the circuit; undefined for a part without electrical behaviour of its own. */
  install?(layout: Layout, part: PlacedPart, around: Surroundings): InstalledPart;
}

/** Parameters that nothing has at nothing or below: without resistance a part would be a short. */
const positive: readonly string[] = ['ohm', 'volts', 'amps'];

/** A number among the parameters of a part; what no part can have counts as not told. */
export function numberOf({ params }: PartOf, name: string, otherwise: number): number {
  const value = params[name];
  if (typeof value !== 'number' || !Number.isFinite(value)) return otherwise;
  return positive.includes(name) && value <= 0 ? otherwise : value;
}

/** Alternating voltage up to which nothing that can be touched has to be bonded, V (IEC 61140). */
const EXTRA_LOW_V = 50;

/** Whether a part works at more alternating voltage than may be touched: then its metal takes a protective conductor. */
export const isAboveExtraLow = (part: PartOf): boolean =>
  part.params['ac'] === true && numberOf(part, 'volts', 24) > EXTRA_LOW_V;
