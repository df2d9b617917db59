export { calculations, plannedCalculations } from './registry.js';
