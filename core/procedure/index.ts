export { deadOf, type Dead } from './dead/index.js';
export { liveOf, liveOfSection, liveSteps, shownTrial, type Live } from './live/index.js';
export { likelyCauses, type Cause, type Told } from './causes.js';
export { seenAt } from './panel/runs.js';
export { readingsOf, type PanelReading } from './panel/readings.js';
export { isolationSources, type IsolationSource } from './dead/sources.js';
