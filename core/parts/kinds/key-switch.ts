import { contactPart, makeContact } from '../contact-parts.js';

/** Key switch with a make contact. */
export const keySwitch = contactPart(
  'keySwitch',
  'S',
  'selector',
  makeContact('off', 'on', 'hand'),
);
