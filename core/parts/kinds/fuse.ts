import { numberOf, type Part } from '../part.js';

/** Fuse of a control circuit. */
export const fuse: Part = {
  kind: 'fuse',
  letter: 'F',
  symbol: 'fuse',
  terminals: () => ['1', '2'],
  install: (layout, part) => ({
    kind: 'fuse',
    id: part.id,
    tag: part.tag,
    across: layout.across(`${part.id}:1`, `${part.id}:2`, part.id, 'fuse'),
    amps: numberOf(part, 'amps', 2),
  }),
};
