import { contactPart, poles } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Circuit breaker with three poles. */
export const breakerThreePole: Part = {
  ...contactPart('breakerThreePole', 'Q', 'pole', poles(3)),
  power: true,
};
