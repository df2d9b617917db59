export { installAtSpeed, keypadSetting, panelAt, type KeypadAt } from './at-speed.js';
export { BRIDGE_OHM, SWITCHES, WIRES } from './failures.js';
export {
  hookPlaces,
  install,
  type HookPlace,
  type InstallOptions,
  type SettingsFrom,
} from './install.js';
export {
  installedOf,
  tagIn,
  type Installation,
  type Installed,
  type InstalledAnalogue,
  type InstalledDevice,
  type InstalledEnable,
  type InstalledInput,
  type InstalledLink,
  type InstalledRelay,
} from './installation.js';
export { leadsOf, motorLeads, type MotorLeads } from './motor-leads.js';
export { netsOf, netsOverStrips, type Nets } from './nets.js';
export {
  logicOf,
  leastLimitsOf,
  startBandOf,
  linkOf,
  startCurvesOf,
  startOf,
  type LogicSpec,
} from './logics.js';
export { applyFault, asBuilt, looseJoint, asPlanned, type Panel } from './panel.js';
export { harmable } from './harm.js';
export { MOST_MA, PICK_UP_V, withstoodBy, type Withstood } from './withstand.js';
