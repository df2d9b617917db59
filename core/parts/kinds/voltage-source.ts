import type { Part } from '../part.js';

/** Signal of a controller, 0 … 10 V. */
export const voltageSource: Part = {
  kind: 'voltageSource',
  letter: 'A',
  symbol: 'source',
  terminals: () => ['+', '-'],
  install: (layout, { id, tag }) => ({
    kind: 'source',
    id,
    tag,
    gives: 'volts',
    edge: layout.edge(`${id}:+`, `${id}:-`, id, 'track'),
    modal: undefined,
  }),
};
