import { contactPart, breakContacts } from '../contact-parts.js';

/** Pressure contact that opens low. */
export const pressureInterlock = contactPart(
  'pressureInterlock',
  'B',
  'process',
  breakContacts('enough', 'low', 'process'),
);
