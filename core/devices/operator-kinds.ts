/** A device whose positions open and close contacts: selectors, level contacts, breakers. */
export interface ContactKind {
  readonly kind: string;
  readonly terminals: readonly string[];
  /** Positions in the order a hand passes through them; the first is at rest. */
  readonly positions: readonly string[];
  readonly rest: string;
  readonly contacts: readonly { readonly a: string; readonly b: string; readonly closedIn: readonly string[] }[];
  /** Goes back to rest by itself when it is let go. */
  readonly momentary?: boolean;
  /** What a person does to it: turn a selector, or a process opens and closes it. */
  readonly workedBy: 'hand' | 'process' | 'supply';
}

const single = (kind: string, off: string, on: string, workedBy: ContactKind['workedBy']): ContactKind => ({
  kind,
  terminals: ['13', '14'],
  positions: [off, on],
  rest: off,
  contacts: [{ a: '13', b: '14', closedIn: [on] }],
  workedBy,
});

/** Contact devices by kind; terminal numbers by EN 50005: make contacts …3–…4, break contacts …1–…2. */
export const contactKinds: Readonly<Record<string, ContactKind>> = {
  selectorOffOn: single('selectorOffOn', 'off', 'on', 'hand'),
  maintainedButton: single('maintainedButton', 'out', 'in', 'hand'),
  levelContact: single('levelContact', 'open', 'closed', 'process'),
  pressureContact: single('pressureContact', 'open', 'closed', 'process'),
  startButton: { ...single('startButton', 'out', 'in', 'hand'), momentary: true },
  stopButton: {
    kind: 'stopButton',
    terminals: ['11', '12'],
    positions: ['out', 'in'],
    rest: 'out',
    contacts: [{ a: '11', b: '12', closedIn: ['out'] }],
    momentary: true,
    workedBy: 'hand',
  },
  selectorForwardReverse: single('selectorForwardReverse', 'forward', 'reverse', 'hand'),
  selectorReverseOffForward: {
    kind: 'selectorReverseOffForward',
    terminals: ['13', '14', '23', '24'],
    positions: ['reverse', 'off', 'forward'],
    rest: 'off',
    contacts: [
      { a: '13', b: '14', closedIn: ['forward'] },
      { a: '23', b: '24', closedIn: ['reverse'] },
    ],
    workedBy: 'hand',
  },
  breakerThreePole: {
    kind: 'breakerThreePole',
    terminals: ['1', '2', '3', '4', '5', '6'],
    positions: ['off', 'on'],
    rest: 'on',
    contacts: [
      { a: '1', b: '2', closedIn: ['on'] },
      { a: '3', b: '4', closedIn: ['on'] },
      { a: '5', b: '6', closedIn: ['on'] },
    ],
    workedBy: 'supply',
  },
};

/** Terminals of the kinds that are no contact devices. */
const otherTerminals: Readonly<Record<string, readonly string[]>> = {
  potentiometer: ['1', '2', '3'],
  supplyThreePhase: ['L1', 'L2', 'L3', 'PE'],
  motor: ['U', 'V', 'W', 'PE'],
};

/** Terminals of an operator or power device in the order in which they are drawn; empty for an unknown kind. */
export function terminalsOfKind(kind: string): readonly string[] {
  return contactKinds[kind]?.terminals ?? otherTerminals[kind] ?? [];
}
