export { SIX_LEADS, THREE_LEADS } from './kinds/motor.js';
export { MAIN_POLES } from './coil-parts.js';
export { behaviourOf } from './behaviour/index.js';
export { type CoilState } from './behaviour/coil.js';
export { type ContactsState } from './behaviour/contacts.js';
export { UNIT_LINK, UNIT_RESISTOR } from './kinds/braking-unit.js';
export { RESISTOR_ENDS, THERMAL_CONTACT } from './kinds/braking-resistor.js';
export { sealInRelays } from './kinds/relay.js';
export { ANSWERS } from './kinds/actuator.js';
export { EARLY_BREAK } from './kinds/motor-isolator.js';
export {
  type InstalledCoil,
  type InstalledContacts,
  type InstalledDial,
  type InstalledFuse,
  type InstalledHook,
  type InstalledLoad,
  type InstalledPart,
  type InstalledPower,
  type InstalledSource,
  type InstalledSupply,
  type InstalledSwitches,
  type InstalledTransistor,
  type InstalledWire,
  type InstalledWires,
} from './installed.js';
export {
  type CoilSpec,
  type ContactSet,
  type Part,
  type PartOf,
  type PartSymbol,
  type PlacedPart,
  type Surroundings,
} from './part.js';
export {
  contactsOf,
  isExposed,
  isMomentary,
  onlyShows,
  parts,
  PROTECTIVE,
  terminalsOf,
} from './registry.js';
export { STAGE_SUPPLY } from './source-parts.js';
