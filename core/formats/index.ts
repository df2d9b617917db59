export { drawingSvg, layOut, type Drawing, type DrawnDevice, type DrawnWire } from './drawing.js';
export { envelopeOf, recordFiles } from './record-files.js';
export { csv, keyingTable, sizeText, terminalTable, wireTable, type Table } from './tables.js';
