import { loadPart } from '../load-parts.js';

/** Fan of the panel. */
export const panelFan = loadPart('panelFan', 'E', 'load');
