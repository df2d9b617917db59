import { throughPart } from '../through-parts.js';

/** Filter or choke between the output of the device and the motor. */
export const outputFilter = throughPart('outputFilter', 'Z');
