import { contactPart, breakContacts } from '../contact-parts.js';

/** Push button with a break contact. */
export const stopButton = contactPart(
  'stopButton',
  'S',
  'push',
  breakContacts('out', 'in', 'hand', 1, { momentary: true }),
);
