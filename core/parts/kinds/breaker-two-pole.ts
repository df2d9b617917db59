import { contactPart, poles } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Circuit breaker with two poles. */
export const breakerTwoPole: Part = {
  ...contactPart('breakerTwoPole', 'F', 'pole', poles(2)),
};
