export { handList, landedSection, type HandLine } from './hand-list.js';
export { handOverObstacles, type Obstacle } from './hand-over.js';
export {
  foundValues,
  keyedValues,
  settingRows,
  snapshotOf,
  type SettingRow,
} from './three-sets.js';
export { pastRecords, stepRecords, type StepRecord, type StepState } from './verdict.js';
