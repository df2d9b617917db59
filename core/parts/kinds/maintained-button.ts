import { contactPart, makeContact } from '../contact-parts.js';

/** Button that stays in. */
export const maintainedButton = contactPart(
  'maintainedButton',
  'S',
  'push',
  makeContact('out', 'in', 'hand'),
);
