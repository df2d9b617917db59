import { contactPart, breakContacts } from '../contact-parts.js';

/**
 * Sensors in the windings of a motor, in series: a way while they are cool. Their resistance, 60 to 750 Ω cold and beyond 4 kΩ
 * hot (IEC 60947-8), is told apart by the device at one threshold, so that a contact stands for it.
 */
export const windingSensor = contactPart(
  'windingSensor',
  'B',
  'process',
  breakContacts('cool', 'hot', 'process'),
);
