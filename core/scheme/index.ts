export { arrange, schemeMissing, type ArrangedDevice, type Arrangement, type Direction, type InputFunction } from './arrangement.js';
export { actsOf, behaviourActs, directionsOf, give, powerUp, PULSE_MS, READY_MS, startActs, stopActs, STRIP_MS, take } from './standard-scripts.js';
