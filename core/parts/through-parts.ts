import type { Part } from './part.js';

/** Only position of a part that lets everything through. */
const FITTED = 'fitted';

/**
 * A part in the way of the power that lets the mains frequency through: filter, reactor. Its poles are numbered as those of a
 * switch, in on the odd side.
 */
export const throughPart = (kind: string, letter: string): Part => ({
  kind,
  letter,
  symbol: 'through',
  power: true,
  exposed: () => true,
  through: (part) => polesOf(part.params['poles']),
  terminals: (part) => polesOf(part.params['poles']).flat(),
  install: (layout, { id, tag, params }) => ({
    kind: 'contacts',
    id,
    tag,
    positions: [FITTED],
    rest: FITTED,
    momentary: false,
    latching: false,
    contacts: polesOf(params['poles']).map(([a, b]) => ({
      edge: layout.edge(`${id}:${a}`, `${id}:${b}`, id, 'join'),
      terminal: a,
      closedIn: [FITTED],
    })),
  }),
});

/** Terminals of each pole; three poles unless told otherwise. */
const polesOf = (count: unknown): [string, string][] =>
  Array.from({ length: count === 2 ? 2 : 3 }, (_, i) => [String(2 * i + 1), String(2 * i + 2)]);
