export { installAtSpeed, keypadSetting, keypadValues } from './at-speed.js';
export { install, type SettingsFrom } from './build.js';
export { analogueScaleOf, controlOf } from './control.js';
export {
  type Installation,
  type InstalledContacts,
  type InstalledDevice,
  type InstalledDial,
  type InstalledDrive,
  type InstalledSupply,
  type InstalledWire,
} from './installation.js';
