import { contactPart, breakContacts } from '../contact-parts.js';

/** Foot switch that stops. */
export const footSwitch = contactPart(
  'footSwitch',
  'S',
  'push',
  breakContacts('up', 'down', 'hand', 1, { momentary: true }),
);
