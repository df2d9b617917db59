import { stripPart } from '../through-parts.js';

/** Terminal strip of the panel, where the cables of the field begin. */
export const terminalStrip = stripPart('terminalStrip', 'X');
