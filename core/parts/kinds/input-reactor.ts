import { throughPart } from '../through-parts.js';

/** Reactor in the supply of the device. */
export const inputReactor = throughPart('inputReactor', 'R');
