import { signalSource } from '../source-parts.js';

/** Signal of a controller, 0 … 10 V. */
export const voltageSource = signalSource('voltageSource');
