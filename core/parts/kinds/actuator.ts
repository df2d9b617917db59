import { coilPart, pairsOf } from '../coil-parts.js';
import { numberOf, type Part } from '../part.js';

/** Alternating voltage up to which nothing that can be touched has to be bonded, V (IEC 61140). */
const EXTRA_LOW_V = 50;

/** Contacts with which it answers, one for each direction that waits for it. */
export const ANSWERS = pairsOf('13', '23');

/** Damper, valve or lubricator: it goes while its drive is fed, and its contacts answer when it is there. */
export const actuator: Part = {
  ...coilPart('actuator', 'Y', {
    makes: ANSWERS,
    breaks: [],
    operateMs: 50,
    releaseMs: 50,
    contactA: 5,
    answers: true,
  }),
  exposed: (part) => part.params['ac'] === true && numberOf(part, 'volts', 24) > EXTRA_LOW_V,
};
