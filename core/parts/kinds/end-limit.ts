import { contactPart, breakContacts } from '../contact-parts.js';

/** Contact at the end of a way: it opens when the machine has come there. */
export const endLimit = contactPart(
  'endLimit',
  'B',
  'process',
  breakContacts('before', 'reached', 'process'),
);
