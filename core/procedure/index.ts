export { deadOf, type Dead } from './dead/index.js';
export { liveOf, liveOfSection, liveSteps, shownTrial, type Live } from './live/index.js';
export { likelyCauses, seenAt, type Cause, type Told } from './causes.js';
export { isolationSources, type IsolationSource } from './dead/sources.js';
