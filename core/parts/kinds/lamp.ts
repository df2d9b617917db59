import { loadPart } from '../load-parts.js';

/** Signal lamp. */
export const lamp = loadPart('lamp', 'H', 'lamp');
