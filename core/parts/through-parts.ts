import type { Part, PartOf } from './part.js';

/** Only position of a part that lets everything through. */
const FITTED = 'fitted';

/** A part that joins pairs of terminals for good; each pair can be lifted or open as a contact can. */
function joining(
  kind: string,
  letter: string,
  pairs: (part: PartOf) => readonly (readonly [string, string])[],
): Part {
  return {
    kind,
    letter,
    symbol: 'through',
    through: pairs,
    terminals: (part) => pairs(part).flat(),
    install: (layout, part) => ({
      kind: 'contacts',
      id: part.id,
      tag: part.tag,
      positions: [FITTED],
      rest: FITTED,
      momentary: false,
      latching: false,
      contacts: pairs(part).map(([a, b]) => ({
        edge: layout.edge(`${part.id}:${a}`, `${part.id}:${b}`, part.id, 'contact'),
        terminal: a,
        closedIn: [FITTED],
      })),
    }),
  };
}

/** A terminal strip in the panel: every terminal has an inner and an outer side, one landing each: `5.i`, `5.o`. */
export const stripPart = (kind: string, letter: string): Part =>
  joining(kind, letter, ({ params }) =>
    Array.from({ length: Number(params['count']) || 0 }, (_, i) => [`${i + 1}.i`, `${i + 1}.o`]),
  );

/**
 * A part in the way of the power that lets the mains frequency through: filter, reactor. Its poles are numbered as those of a
 * switch, in on the odd side.
 */
export const throughPart = (kind: string, letter: string): Part => ({
  ...joining(kind, letter, ({ params }) => polesOf(params['poles'])),
  power: true,
  exposed: () => true,
});

/** Terminals of each pole; three poles unless told otherwise. */
const polesOf = (count: unknown): [string, string][] =>
  Array.from({ length: count === 2 ? 2 : 3 }, (_, i) => [String(2 * i + 1), String(2 * i + 2)]);
