export { liveOf, liveSteps, shownTrial, type Live } from './live/index.js';
