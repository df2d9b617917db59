import { contactPart, makeContact } from '../contact-parts.js';

/** Key switch between remote and local. */
export const selectorRemoteLocal = contactPart(
  'selectorRemoteLocal',
  'S',
  'selector',
  makeContact('remote', 'local', 'hand'),
);
