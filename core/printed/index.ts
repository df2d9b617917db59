export { cell, row, stamp, type Cell, type RecordInput, type RecordSection } from './cells.js';
export { recordSections, recordState } from './document.js';
export { unpackedFont, type Inflate } from './font-file.js';
export { recordHtml, type RecordPage } from './html.js';
export { jobCode } from './job-code.js';
export {
  dialMarks,
  labelKinds,
  labelSizes,
  labelsOf,
  labelTable,
  type DialMark,
  type Label,
  type LabelKind,
} from './labels.js';
export { operatorRows } from './operator-rows.js';
export {
  pdfDefinition,
  type PdfDrawing,
  type PdfInput,
  type PdfPicture,
  type PdfSignature,
} from './pdf-definition.js';
export { fontOf, missingSigns, runsOf } from './pdf-text.js';
export {
  operatorPage,
  printOf,
  recordPage,
  recordPictures,
  type Printing,
  type RecordPicture,
} from './print.js';
export { punchNames } from './punch-names.js';
export {
  expectedLines,
  nominalText,
  placeName,
  rangeText,
  readBy,
  readingText,
} from './reading-text.js';
export { recordSheets, type RecordSheet } from './sheets.js';
export { recordTables, tableOf, type RecordTable } from './tables.js';
export { temporaryNames } from './temporary-names.js';
export { ownTolerances, tolerancesApart, toleranceText, toleranceWords } from './tolerance-text.js';
export { wishOptions } from './wish-options.js';
export { wishRows } from './wish-rows.js';
