import { coilPart } from '../coil-parts.js';

/** Timer relay with an on-delay: two change-over contacts, of which two makes and a break are used. */
export const timerRelay = coilPart('timerRelay', 'K', {
  makes: [
    ['15', '18'],
    ['25', '28'],
  ],
  breaks: [['15', '16']],
  operateMs: 15,
  releaseMs: 10,
  contactA: 5,
});
