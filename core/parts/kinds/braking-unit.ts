import type { Part } from '../part.js';

/** Terminals of a braking unit at the DC link of the device, plus first, and those of its resistor. */
export const UNIT_LINK = ['DC+', 'DC-'] as const;
export const UNIT_RESISTOR = ['R1', 'R2'] as const;

/** Separate braking unit: a chopper beside a device that has none. Of the network of the control it is no part. */
export const brakingUnit: Part = {
  kind: 'brakingUnit',
  letter: 'T',
  symbol: 'load',
  terminals: () => [...UNIT_LINK, ...UNIT_RESISTOR],
  power: true,
  exposed: () => true,
};
