import { contactPart, makeContact } from '../contact-parts.js';

/** Level contact that asks for a run. */
export const levelContact = contactPart(
  'levelContact',
  'B',
  'process',
  makeContact('open', 'closed', 'process'),
);
