import { supplyPart } from '../supply-parts.js';

/** Supply of three phases with neutral and protective conductor. */
export const supplyThreePhase = supplyPart('supplyThreePhase', ['L1', 'L2', 'L3']);
