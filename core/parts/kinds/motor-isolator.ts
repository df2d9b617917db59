import { contactPart, poles } from '../contact-parts.js';
import type { Part } from '../part.js';

/** Early-break contact of an isolator at the motor: it opens before the poles and closes after them (IEC 60947-3). */
export const EARLY_BREAK = ['13', '14'] as const;

/** Isolator between device and motor, beside the machine, worked by hand and locked; its contact tells the device. */
export const motorIsolator: Part = {
  ...contactPart('motorIsolator', 'Q', 'pole', () => {
    const set = poles(3);
    const [a, b] = EARLY_BREAK;
    return {
      ...set,
      contacts: [...set.contacts, { a, b, closedIn: ['on'] }],
      workedBy: 'hand',
    };
  }),
  exposed: () => true,
};
