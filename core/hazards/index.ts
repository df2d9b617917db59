export { acceptanceOf, acceptanceSubject, checkJob, hazardRules } from './check.js';
export { hazardContext, type HazardContext, type Rule } from './rules.js';
