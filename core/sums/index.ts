export { calculationGroups, calculations } from './registry.js';
export { calibrate } from './calibrate.js';
