import { contactPart, breakContacts } from '../contact-parts.js';

/** Thermostat that opens hot. */
export const thermostat = contactPart(
  'thermostat',
  'B',
  'process',
  breakContacts('cool', 'hot', 'process'),
);
