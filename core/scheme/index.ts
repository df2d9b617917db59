export { arrange, pulseSchools, schemeMissing, type DeviceLimits } from './arrange.js';
export { DEVICE_ID, isSymbol, lineIds, plugOf } from './arrangement.js';
export type {
  ArrangedDevice,
  Arrangement,
  DeviceSymbol,
  Direction,
  InputFunction,
  Net,
  Operation,
  OperationId,
  OutputFunction,
  Mounting,
  PointRef,
  WishConflict,
} from './arrangement.js';
export {
  arrangementsFor,
  shippedArrangements,
  starterArrangements,
  startFrom,
  type ShippedArrangement,
} from './shipped.js';
export {
  actsOf,
  directionsOf,
  give,
  operationsOn,
  powerOnActs,
  powerUp,
  PULSE_MS,
  READY_MS,
  startActs,
  stopActs,
  take,
} from './acts.js';
export { contactorByRelay } from './line-side.js';
export { OUTPUT_CONTACTOR } from './output-contactor.js';
export { chosenApart } from './speed.js';
export { alternatingPotentials } from './supplies.js';
