import { contactPart, makeContact } from '../contact-parts.js';

/** Selector of the direction. */
export const selectorForwardReverse = contactPart(
  'selectorForwardReverse',
  'S',
  'selector',
  makeContact('forward', 'reverse', 'hand'),
);
