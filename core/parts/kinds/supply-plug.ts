import { contactPart, poles } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Plug of the supply as its disconnecting device: pulled, it is off; its protective contact goes with the cable (IEC 60204-1 §5.3.2 e). */
export const supplyPlug: Part = {
  ...contactPart('supplyPlug', 'X', 'pole', ({ params }) => poles(params['poles'] === 2 ? 2 : 3)),
  power: true,
};
