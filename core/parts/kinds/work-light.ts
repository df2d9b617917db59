import { loadPart } from '../load-parts.js';

/** Work light. */
export const workLight = loadPart('workLight', 'E', 'lamp');
