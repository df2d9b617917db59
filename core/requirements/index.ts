export { judged } from './judge.js';
export { requirementsOf } from './list.js';
export type { Does, Judged, Look, Must, Requirement } from './requirement.js';
export { relaySignal } from './requirement.js';
