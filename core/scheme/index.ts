export { arrange, schemeMissing, type ArrangedDevice, type Arrangement, type InputFunction } from './arrangement.js';
export { actsOf, give, powerUp, READY_MS, take } from './standard-scripts.js';
