import { contactPart, breakContacts } from '../contact-parts.js';

/** Foot treadle that stops and brakes. */
export const footBrake = contactPart(
  'footBrake',
  'S',
  'push',
  breakContacts('up', 'down', 'hand', 1, { momentary: true }),
);
