export { contactKinds, terminalsOfKind, type ContactKind } from './operator-kinds.js';
