import { numberOf, type Part } from './part.js';

/** Source of the supply: star point at N, joined to PE. */
export function supplyPart(kind: string, phases: readonly ('L1' | 'L2' | 'L3')[]): Part {
  return {
    kind,
    letter: 'X',
    symbol: 'source',
    power: true,
    terminals: () => [...phases, 'N', 'PE'],
    install: (layout, { id, tag }, { lineV }) => ({
      kind: 'supply',
      id,
      tag,
      phaseV: phases.length === 1 ? lineV : lineV / Math.sqrt(3),
      phases: phases.map((phase) => ({
        phase,
        edge: layout.edge(`${id}:${phase}`, `${id}:N`, id, 'source', 'alternating'),
      })),
      neutral: layout.edge(`${id}:N`, `${id}:PE`, id, 'bond'),
    }),
  };
}

/**
 * A direct supply with a current limit between + and −.
 *
 * @param primary terminals of its alternating input; always on where it has none
 * @param minV voltage from which it works
 */
export function powerPart(
  kind: string,
  letter: string,
  primary?: readonly [string, string],
  minV = 0,
): Part {
  return {
    kind,
    letter,
    symbol: 'source',
    terminals: () => [...(primary ?? []), '+', '-'],
    install: (layout, part) => {
      const { id, tag } = part;
      return {
        kind: 'power',
        id,
        tag,
        primary: primary && {
          ...layout.across(`${id}:${primary[0]}`, `${id}:${primary[1]}`, id, 'primary'),
          minV,
        },
        output: {
          ...layout.modalEdge(`${id}:+`, `${id}:-`, 'limitedSupply', id),
          volts: numberOf(part, 'volts', 24),
          amps: numberOf(part, 'amps', 1),
          ohm: 0,
        },
      };
    },
  };
}
