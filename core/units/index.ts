export {
  dimensionOf,
  dimensions,
  toBase,
  unitsOf,
  valueIn,
  type Dimension,
  type Quantity,
  type UnitOf,
} from './dimensions.js';
export { formatNumber, formatQuantity, formatValue, type DecimalMark } from './format.js';
export { minutesText, moment } from './moment.js';
export { parseQuantity, type Parsed } from './parse.js';
export { inSystem, unitIn, type UnitSystem } from './system.js';
