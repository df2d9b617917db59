import { signalSource } from '../source-parts.js';

/** Signal of a controller, 4 … 20 mA, driven out of its plus terminal. */
export const currentSource = signalSource('currentSource');
