import { contactPart, breakContacts } from '../contact-parts.js';

/** Contact of a guard that opens with it. */
export const guardContact = contactPart(
  'guardContact',
  'B',
  'process',
  breakContacts('shut', 'open', 'process'),
);
