import { stripPart } from '../through-parts.js';

/** Plug and socket of a cable: what it leads to can be taken off and put back. Its `.i` is the panel's half, its `.o` the cable's. */
export const plugConnector = stripPart('plugConnector', 'X');
