export { liveSteps } from './live.js';
export { tolerances } from './tolerances.js';
