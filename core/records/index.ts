export {
  actuatorBlocks,
  cableCores,
  endFacts,
  freeTerminals,
  type ActuatorBlocks,
  type CableCores,
  type EndFacts,
} from './hand-facts.js';
export { handList, landedSection, type HandLine } from './hand-list.js';
export { handGroups, handTasks, type HandGroup, type HandTask } from './hand-tasks.js';
export { heldValues, testValuesHeld, keyedShare, keyedSince, keySessionSince } from './held.js';
export { handOverObstacles, type Obstacle } from './hand-over.js';
export { foundValues, settingRows, type SettingRow } from './three-sets.js';
export {
  pastRecords,
  stepRecords,
  wrongLoops,
  type StepRecord,
  type StepState,
} from './verdict.js';
export {
  isControl,
  terminalRows,
  type TerminalEnd,
  type TerminalRow,
  type TerminalVolts,
} from './terminal-rows.js';
export { signalList, type Signal } from './signal-list.js';
export {
  panelSettingKinds,
  panelSettings,
  standsAsPlanned,
  type PanelSetting,
  type PanelSettingKind,
} from './panel-settings.js';
