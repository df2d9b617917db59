import { contactPart, makeContact } from '../contact-parts.js';

/** Relay output of a controller. */
export const controllerContact = contactPart(
  'controllerContact',
  'A',
  'process',
  makeContact('open', 'closed', 'process'),
);
