import { numberOf, type Part } from '../part.js';

/** Potentiometer: low end at 1, wiper at 2, high end at 3. */
export const potentiometer: Part = {
  kind: 'potentiometer',
  letter: 'R',
  symbol: 'resistor',
  terminals: () => ['1', '2', '3'],
  install: (layout, part) => {
    const { id, tag } = part;
    return {
      kind: 'dial',
      id,
      tag,
      ohm: numberOf(part, 'ohm', 5000),
      lower: layout.edge(`${id}:1`, `${id}:2`, id, 'track'),
      upper: layout.edge(`${id}:2`, `${id}:3`, id, 'track'),
    };
  },
};
