import { loadPart } from '../load-parts.js';

/** Speed meter, 0–10 V. */
export const meter = loadPart('meter', 'A', 'meter');
