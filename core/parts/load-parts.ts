import { isAboveExtraLow, numberOf, type Part, type PartSymbol } from './part.js';

/** A part between X1 and X2 that only draws current. */
export function loadPart(kind: string, letter: string, symbol: PartSymbol): Part {
  return {
    kind,
    letter,
    symbol,
    shows: true,
    terminals: () => ['X1', 'X2'],
    exposed: isAboveExtraLow,
    install: (layout, part) => ({
      kind: 'load',
      id: part.id,
      tag: part.tag,
      across: layout.across(`${part.id}:X1`, `${part.id}:X2`, part.id, 'load'),
      ac: part.params['ac'] === true,
      volts: numberOf(part, 'volts', 24),
      ohm: numberOf(part, 'ohm', 1000),
    }),
  };
}
