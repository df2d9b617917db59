import { coilPart, pairsOf } from '../coil-parts.js';

/** Contactor relay. */
export const contactorRelay = coilPart('contactorRelay', 'K', {
  makes: pairsOf('13', '23'),
  breaks: pairsOf('31'),
  operateMs: 15,
  releaseMs: 10,
  contactA: 6,
});
