export {
  coilKinds,
  contactKind,
  contactKinds,
  isMomentary,
  loadKinds,
  terminalsOfKind,
  type CoilKind,
  type ContactKind,
} from './operator-kinds.js';
