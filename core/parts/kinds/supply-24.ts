import type { Part } from '../part.js';
import { powerPart } from '../supply-parts.js';

/** Supply of 24 V direct from alternating voltage, limited in current. */
export const supply24: Part = {
  ...powerPart('supply24', 'G', ['L', 'N'], 85),
  exposed: () => true,
};
