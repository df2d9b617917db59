import { contactPart, breakContacts } from '../contact-parts.js';

/** Latching emergency stop with three break contacts. */
export const emergencyStop = contactPart(
  'emergencyStop',
  'S',
  'mushroom',
  breakContacts('out', 'in', 'hand', 3, { latching: true }),
);
