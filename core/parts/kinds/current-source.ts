import type { Part } from '../part.js';

/** Signal of a controller, 4 … 20 mA, driven out of its plus terminal. */
export const currentSource: Part = {
  kind: 'currentSource',
  letter: 'A',
  symbol: 'source',
  terminals: () => ['+', '-'],
  install: (layout, { id, tag }) => ({
    kind: 'source',
    id,
    tag,
    gives: 'amps',
    ...layout.modalEdge(`${id}:-`, `${id}:+`, 'currentSource', id, 'track'),
  }),
};
