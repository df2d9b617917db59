type Params = Readonly<Record<string, number | string | boolean>>;

/** A device whose positions open and close contacts: selectors, level contacts, breakers. */
export interface ContactKind {
  readonly kind: string;
  readonly terminals: readonly string[];
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
  /** What a person does to it: turn a selector, or a process or controller opens and closes it. */
  readonly workedBy: 'hand' | 'process' | 'supply';
}

type Spec = Omit<ContactKind, 'kind' | 'terminals'>;
const kindOf = (kind: string, spec: Spec): ContactKind => ({
  kind,
  terminals: spec.contacts.flatMap((c) => [c.a, c.b]),
  ...spec,
});

/** One make contact. */
const make = (
  kind: string,
  off: string,
  on: string,
  workedBy: ContactKind['workedBy'],
  momentary = false,
): ContactKind =>
  kindOf(kind, {
    positions: [off, on],
    rest: off,
    contacts: [{ a: '13', b: '14', closedIn: [on] }],
    workedBy,
    momentary,
  });

/** Break contacts that open when the device leaves its rest. */
const breaks = (
  kind: string,
  rest: string,
  acted: string,
  workedBy: ContactKind['workedBy'],
  pairs: readonly string[],
  more: Partial<Spec> = {},
): ContactKind =>
  kindOf(kind, {
    positions: [rest, acted],
    rest,
    contacts: pairs.map((n) => ({ a: `${n}1`, b: `${n}2`, closedIn: [rest] })),
    workedBy,
    ...more,
  });

/** Poles of a switching device of the supply, closed as delivered. */
const poles = (kind: string, count: number): ContactKind =>
  kindOf(kind, {
    positions: ['off', 'on'],
    rest: 'on',
    contacts: Array.from({ length: count }, (_, i) => ({
      a: String(2 * i + 1),
      b: String(2 * i + 2),
      closedIn: ['on'],
    })),
    workedBy: 'supply',
  });

/** Contact devices by kind; terminal numbers by EN 50005: make contacts …3–…4, break contacts …1–…2. */
export const contactKinds: Readonly<Record<string, ContactKind>> = Object.fromEntries(
  [
    make('selectorOffOn', 'off', 'on', 'hand'),
    make('keySwitch', 'off', 'on', 'hand'),
    make('maintainedButton', 'out', 'in', 'hand'),
    make('levelContact', 'open', 'closed', 'process'),
    make('pressureContact', 'open', 'closed', 'process'),
    make('controllerContact', 'open', 'closed', 'process'),
    make('startButton', 'out', 'in', 'hand', true),
    make('selectorForwardReverse', 'forward', 'reverse', 'hand'),
    make('selectorRemoteLocal', 'remote', 'local', 'hand'),
    breaks('stopButton', 'out', 'in', 'hand', ['1'], { momentary: true }),
    breaks('emergencyStop', 'out', 'in', 'hand', ['1', '2', '3'], { latching: true }),
    breaks('footSwitch', 'up', 'down', 'hand', ['1'], { momentary: true }),
    breaks('footBrake', 'up', 'down', 'hand', ['1'], { momentary: true }),
    breaks('levelInterlock', 'enough', 'low', 'process', ['1']),
    breaks('pressureInterlock', 'enough', 'low', 'process', ['1']),
    breaks('guardContact', 'shut', 'open', 'process', ['1']),
    breaks('thermostat', 'cool', 'hot', 'process', ['1']),
    kindOf('selectorReverseOffForward', {
      positions: ['reverse', 'off', 'forward'],
      rest: 'off',
      contacts: [
        { a: '13', b: '14', closedIn: ['forward'] },
        { a: '23', b: '24', closedIn: ['reverse'] },
      ],
      workedBy: 'hand',
    }),
    poles('breakerThreePole', 3),
    poles('breakerTwoPole', 2),
  ].map((k) => [k.kind, k]),
);

/**
 * Contacts of a device; a preset selector has the positions and contacts its plan gave it.
 *
 * @returns undefined for a device without contacts of its own hand
 * @example contactKind('presetSelector', { positions: '1 2 3', contacts: '3|2 3' })?.contacts.length // 2
 */
export function contactKind(kind: string, params: Params = {}): ContactKind | undefined {
  if (kind !== 'presetSelector') return contactKinds[kind];
  const positions = String(params['positions'] ?? '1').split(' ');
  const contacts = String(params['contacts'] ?? '').split('|').filter(Boolean).map((list, i) => ({ a: `${i + 1}3`, b: `${i + 1}4`, closedIn: list.split(' ') })); // prettier-ignore
  return kindOf(kind, { positions, rest: positions[0], contacts, workedBy: 'hand' });
}

/** A device with a coil: what pulls in, and which contacts then change. Times in ms (typical catalogue values). */
export interface CoilKind {
  readonly kind: string;
  readonly coil: readonly [string, string];
  readonly makes: readonly (readonly [string, string])[];
  readonly breaks: readonly (readonly [string, string])[];
  readonly operateMs: number;
  readonly releaseMs: number;
  /** What it may switch, A at the voltage of its coil circuit. */
  readonly contactA: number;
}

const pairsOf = (...starts: string[]): (readonly [string, string])[] =>
  starts.map((a) => [a, `${a.slice(0, -1)}${Number(a.slice(-1)) + 1}`] as const);

export const coilKinds: Readonly<Record<string, CoilKind>> = Object.fromEntries(
  (
    [
      { kind: 'relay', coil: ['A1', 'A2'], makes: pairsOf('13', '23'), breaks: pairsOf('31'), operateMs: 15, releaseMs: 10, contactA: 6 },
      { kind: 'contactorRelay', coil: ['A1', 'A2'], makes: pairsOf('13', '23'), breaks: pairsOf('31'), operateMs: 15, releaseMs: 10, contactA: 6 },
      { kind: 'contactor', coil: ['A1', 'A2'], makes: pairsOf('1', '3', '5', '13', '33', '43'), breaks: pairsOf('21'), operateMs: 20, releaseMs: 12, contactA: 9 },
      { kind: 'timerRelay', coil: ['A1', 'A2'], makes: [['15', '18'], ['25', '28']], breaks: [['15', '16']], operateMs: 15, releaseMs: 10, contactA: 5 },
      { kind: 'brake', coil: ['A1', 'A2'], makes: [], breaks: [], operateMs: 80, releaseMs: 120, contactA: 0 },
    ] satisfies CoilKind[]
  ).map((k) => [k.kind, k]),
); // prettier-ignore

/** Devices between two terminals that only draw current: lamps, horns, meters, inputs of a controller. */
export const loadKinds: Readonly<Record<string, readonly [string, string]>> = {
  lamp: ['X1', 'X2'], horn: ['X1', 'X2'], workLight: ['X1', 'X2'], panelFan: ['X1', 'X2'], meter: ['X1', 'X2'], controllerInput: ['X1', 'X2'],
}; // prettier-ignore

/** Terminals of the kinds that are neither contacts, coils nor loads. */
const otherTerminals: Readonly<Record<string, readonly string[]>> = {
  potentiometer: ['1', '2', '3'],
  supplyThreePhase: ['L1', 'L2', 'L3', 'N', 'PE'],
  supplySinglePhase: ['L1', 'N', 'PE'],
  motor: ['U', 'V', 'W', 'PE'],
  supply24: ['L', 'N', '+', '-'],
  loopSupply: ['+', '-'],
  controlTransformer: ['P1', 'P2', 'S1', 'S2'],
  fuse: ['1', '2'],
  transistorOutput: ['1', '2'],
  voltageSource: ['+', '-'],
  currentSource: ['+', '-'],
};

/** Terminals of an operator or power device in the order in which they are drawn; empty for an unknown kind. */
export function terminalsOfKind(kind: string, params: Params = {}): readonly string[] {
  const coil = coilKinds[kind];
  if (coil) return [...new Set([...coil.coil, ...coil.makes.flat(), ...coil.breaks.flat()])];
  return contactKind(kind, params)?.terminals ?? loadKinds[kind] ?? otherTerminals[kind] ?? [];
}

/** A position or press is worked by a button that springs back. */
export const isMomentary = (kind: string): boolean => contactKinds[kind]?.momentary === true;
