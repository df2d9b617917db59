export { dcLinkVoltage } from './dc-link-voltage.js';
export { discharge } from './discharge.js';
export { coastTime } from './coast-time.js';
export { inertiaAtMotor } from './inertia.js';
export { likelyTyping } from './likely-typing.js';
export { plateFacts, plateNumbers, type PlateBlock, type PlateFact, type PlateNumbers } from './plate-facts.js';
export { plateFindings, plateMissing } from './plate-findings.js';
export { unbalance } from './unbalance.js';
export { copperOhm, voltageDrop } from './voltage-drop.js';
