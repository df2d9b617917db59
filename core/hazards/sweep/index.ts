export { faultClasses, moments, type FaultClass, type Moment } from './classes.js';
export { Sweep, type SweepRow } from './sweep.js';
