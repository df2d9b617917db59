import { breakContacts, contactPart } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Contact of a braking resistor that opens when it is hot. */
export const THERMAL_CONTACT = ['11', '12'] as const;

/** Ends of its winding, which the chopper of the device feeds. */
export const RESISTOR_ENDS = ['1', '2'] as const;

/** Braking resistor with a thermal contact. What the chopper feeds it with is no part of the network. */
export const brakingResistor: Part = {
  ...contactPart('brakingResistor', 'RB', 'process', breakContacts('cool', 'hot', 'process')),
  terminals: () => [...RESISTOR_ENDS, ...THERMAL_CONTACT],
  exposed: () => true,
};
