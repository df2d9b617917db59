import { supplyPart } from '../supply-parts.js';

/** Supply of one phase. */
export const supplySinglePhase = supplyPart('supplySinglePhase', ['L1']);
