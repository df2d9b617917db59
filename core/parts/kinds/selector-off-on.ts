import { contactPart, makeContact } from '../contact-parts.js';

/** Selector with a make contact. */
export const selectorOffOn = contactPart(
  'selectorOffOn',
  'S',
  'selector',
  makeContact('off', 'on', 'hand'),
);
