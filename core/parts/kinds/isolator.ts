import { contactPart, poles } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Supply disconnecting device, worked by hand and locked (IEC 60204-1 §5.3). */
export const isolator: Part = {
  ...contactPart('isolator', 'Q', 'pole', ({ params }) => poles(params['poles'] === 2 ? 2 : 3)),
  power: true,
};
