import { loadPart } from '../load-parts.js';

/** Horn of a start warning. */
export const horn = loadPart('horn', 'H', 'sounder');
