import { contactPart, breakContacts } from '../contact-parts.js';

/** Level contact that opens low. */
export const levelInterlock = contactPart(
  'levelInterlock',
  'B',
  'process',
  breakContacts('enough', 'low', 'process'),
);
