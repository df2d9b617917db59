import { coilPart, pairsOf } from '../coil-parts.js';
import { isAboveExtraLow, type Part } from '../part.js';

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
  exposed: isAboveExtraLow,
};
