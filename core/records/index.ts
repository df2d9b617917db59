export { handOverBlocks, type Block } from './hand-over.js';
export { keyedValues, settingRows, snapshotOf, type SettingRow } from './three-sets.js';
export { stepRecords, type StepRecord, type StepState } from './verdict.js';
