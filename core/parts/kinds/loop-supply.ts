import { powerPart } from '../supply-parts.js';

/** 24 V of a controller: on until it is switched off. */
export const loopSupply = powerPart('loopSupply', 'G');
