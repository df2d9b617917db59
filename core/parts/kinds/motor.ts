import type { Part } from '../part.js';

/** The motor: what turns is its shaft; its windings are no part of the control network. */
export const motor: Part = {
  kind: 'motor',
  letter: 'M',
  symbol: 'motor',
  power: true,
  turns: true,
  terminals: () => ['U', 'V', 'W', 'PE'],
};
