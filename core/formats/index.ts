export {
  drawingSvg,
  layOut,
  type Drawing,
  type DrawingOf,
  type DrawnDevice,
  type DrawnWire,
} from './drawing.js';
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
export { envelopeOf, recordFiles } from './record-files.js';
export { csv, keyingTable, terminalTable, wireTable, type Table } from './tables.js';
