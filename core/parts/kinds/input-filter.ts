import { throughPart } from '../through-parts.js';

/** Filter against conducted interference in the supply of the device. */
export const inputFilter = throughPart('inputFilter', 'Z');
