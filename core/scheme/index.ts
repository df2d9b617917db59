export { arrange, pulseSchools, schemeMissing, type DeviceFacts } from './arrange.js';
export type {
  ArrangedDevice,
  Arrangement,
  ContactsSwitch,
  Direction,
  InputFunction,
  Net,
  Operation,
  OutputFunction,
  Place,
  WishConflict,
} from './arrangement.js';
export { shippedArrangements, startFrom, type ShippedArrangement } from './shipped.js';
export {
  actsOf,
  directionsOf,
  give,
  operationsOn,
  powerOnActs,
  powerUp,
  PULSE_MS,
  READY_MS,
  standardScript,
  startActs,
  stopActs,
  take,
  type Moment,
  type StandardScript,
} from './standard-scripts.js';
