import { loadPart } from '../load-parts.js';

/** Input of a controller. */
export const controllerInput = loadPart('controllerInput', 'A', 'load');
