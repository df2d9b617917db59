import { contactPart, makeContact } from '../contact-parts.js';

/** Pressure contact that asks for a run. */
export const pressureContact = contactPart(
  'pressureContact',
  'B',
  'process',
  makeContact('open', 'closed', 'process'),
);
