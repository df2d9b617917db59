import { coilPart, pairsOf } from '../coil-parts.js';

/** Relay. */
export const relay = coilPart('relay', 'K', {
  makes: pairsOf('13', '23'),
  breaks: pairsOf('31'),
  operateMs: 15,
  releaseMs: 10,
  contactA: 6,
});
