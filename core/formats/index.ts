export {
  guessMapping,
  readRecorder,
  recordedStart,
  RecorderError,
  recordingOf,
  type RecordedStart,
  type RecorderFile,
  type RecorderMapping,
  type Recording,
} from './recorder.js';
export { recordedRamps, type RecordedRamps } from './recorded-ramps.js';
export { drawingFiles, envelopeOf, recordFiles } from './record-files.js';
export {
  csv,
  handTable,
  keyingTable,
  terminalTable,
  wireTable,
  type HandWords,
  type Table,
} from './tables.js';
