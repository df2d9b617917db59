import type { ContactSet, Part, PartOf, PartSymbol, PlacedPart } from './part.js';
import type { Layout } from '../circuit/index.js';
import type { InstalledContacts } from './installed.js';

/** Lays contacts of any kind into the circuit. */
function installContacts(layout: Layout, part: PlacedPart, set: ContactSet): InstalledContacts {
  const { id, tag } = part;
  const { positions, rest, momentary = false, latching = false } = set;
  const contacts = set.contacts.map(({ a, b, closedIn }) => ({
    edge: layout.edge(`${id}:${a}`, `${id}:${b}`, id, 'contact'),
    terminal: a,
    closedIn,
  }));
  return { kind: 'contacts', id, tag, positions, rest, momentary, latching, contacts };
}

/** A part that is a set of contacts; terminal numbers by EN 50005: make contacts …3–…4, break contacts …1–…2. */
export function contactPart(
  kind: string,
  letter: string,
  symbol: PartSymbol,
  setOf: ContactSet | ((part: PartOf) => ContactSet),
): Part {
  const contacts = typeof setOf === 'function' ? setOf : () => setOf;
  return {
    kind,
    letter,
    symbol,
    contacts,
    terminals: (part) => contacts(part).contacts.flatMap((c) => [c.a, c.b]),
    install: (layout, part) => installContacts(layout, part, contacts(part)),
  };
}

/** One make contact. */
export const makeContact = (
  off: string,
  on: string,
  workedBy: ContactSet['workedBy'],
  momentary = false,
): ContactSet => ({
  positions: [off, on],
  rest: off,
  contacts: [{ a: '13', b: '14', closedIn: [on] }],
  workedBy,
  momentary,
});

/** Break contacts that open when the part leaves its rest; numbered …1–…2 from 1 on. */
export const breakContacts = (
  rest: string,
  acted: string,
  workedBy: ContactSet['workedBy'],
  count = 1,
  more: Partial<ContactSet> = {},
): ContactSet => ({
  positions: [rest, acted],
  rest,
  contacts: Array.from({ length: count }, (_, i) => ({
    a: `${i + 1}1`,
    b: `${i + 1}2`,
    closedIn: [rest],
  })),
  workedBy,
  ...more,
});

/** Poles of a switching device of the supply, closed as delivered. */
export const poles = (count: number): ContactSet => ({
  positions: ['off', 'on'],
  rest: 'on',
  contacts: Array.from({ length: count }, (_, i) => ({
    a: String(2 * i + 1),
    b: String(2 * i + 2),
    closedIn: ['on'],
  })),
  workedBy: 'supply',
});
