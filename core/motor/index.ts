export { motorCurrent } from './motor-current.js';
export { plateSpeed } from './plate-speed.js';
export { linkFor, linksOf, ratedPointInUse, ratedPoints, voltageSuits, type MotorLink, type RatedPoint } from './rated.js';
export { shaftSpeed } from './shaft-speed.js';
