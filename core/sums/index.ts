export { calculationGroups, calculations } from './registry.js';
