import { numberOf, type Part } from '../part.js';

const RATED_VA = 160;
const REGULATION = 0.05;
/** Share of the line voltage from which the primary counts as fed. */
const FED = 0.7;

/** Control transformer: primary P1–P2, secondary S1–S2. */
export const controlTransformer: Part = {
  kind: 'controlTransformer',
  letter: 'T',
  symbol: 'transformer',
  terminals: () => ['P1', 'P2', 'S1', 'S2'],
  exposed: () => true,
  install: (layout, part, { lineV }) => {
    const { id, tag } = part;
    const volts = numberOf(part, 'volts', 24);
    return {
      kind: 'power',
      id,
      tag,
      primary: { ...layout.across(`${id}:P1`, `${id}:P2`, id, 'primary'), minV: lineV * FED },
      output: {
        edge: layout.edge(`${id}:S1`, `${id}:S2`, id, 'source', 'alternating'),
        modal: undefined,
        volts,
        amps: RATED_VA / volts,
        ohm: (REGULATION * volts * volts) / RATED_VA,
      },
    };
  },
};
