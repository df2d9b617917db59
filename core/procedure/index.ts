export { liveSteps } from './live/index.js';
export { tolerances } from './tolerances.js';
