export {
  deadSectionNames,
  liveSectionNames,
  sayAct,
  sayDisplay,
  sayShaft,
} from './procedure-names.js';
export { sayFaults, type SaidFault } from './faults-english.js';
export { sayTitle } from './facts-english.js';
export { relayNames, sayDoing, sayRequirement } from './requirements-english.js';
export { sayWire, sayWireOf } from './wires-english.js';
export { kinds as deviceKinds, panelSettingNames } from './parts-english.js';
export {
  findingRules, say, sayCaution, sayCondition, sayConflict, sayFinding, sayMark, sayName, sayNoPlan, sayOpenPlace, sayReason, saySchool, saySeverity,
  type Saying,
} from './say.js'; // prettier-ignore
export { handGroupNames } from './hand-english.js';
export { handWords } from './hand-words.js';
export { policyNames, sayPolicy, terminalKindNames } from './profile-english.js';
export { wishNames } from './circuit-english.js';
export { circuitWords, tasksOf } from './terminal-tasks.js';
export { sourceNames } from './energise-english.js';
export { sayFindOutDoubt } from './find-out-english.js';
