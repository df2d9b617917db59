import { coilPart, pairsOf } from '../coil-parts.js';

/** Contactor with three poles and auxiliary contacts. */
export const contactor = coilPart('contactor', 'Q', {
  makes: pairsOf('1', '3', '5', '13', '33', '43'),
  breaks: pairsOf('21'),
  operateMs: 20,
  releaseMs: 12,
  contactA: 9,
});
