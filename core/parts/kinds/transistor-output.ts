import { numberOf, type Part } from '../part.js';

/** Transistor output of a controller. */
export const transistorOutput: Part = {
  kind: 'transistorOutput',
  letter: 'A',
  symbol: 'transistor',
  terminals: () => ['1', '2'],
  install: (layout, part) => {
    const { id, tag } = part;
    return {
      kind: 'transistor',
      id,
      tag,
      edge: layout.edge(`${id}:1`, `${id}:2`, id, 'contact'),
      modal: layout.modalEdge(`${id}:1`, `${id}:2`, 'currentSource', id, 'probe').modal,
      dropV: numberOf(part, 'dropV', 0.5),
      leakageA: numberOf(part, 'leakageMA', 0.5) / 1000,
    };
  },
};
