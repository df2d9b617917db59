import { contactPart, makeContact } from '../contact-parts.js';

/** Push button with a make contact. */
export const startButton = contactPart(
  'startButton',
  'S',
  'push',
  makeContact('out', 'in', 'hand', true),
);
