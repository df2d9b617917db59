export { installAtSpeed, installWithKeypad, keypadSetting, keypadValues } from './at-speed.js';
export {
  hookPlaces,
  install,
  type HookPlace,
  type InstallOptions,
  type SettingsFrom,
} from './build.js';
export { analogueScaleOf, controlOf } from './control.js';
export {
  type Installation,
  type InstalledCoil,
  type InstalledContacts,
  type InstalledDevice,
  type InstalledDial,
  type InstalledDrive,
  type InstalledEnable,
  type InstalledFuse,
  type InstalledHook,
  type InstalledInput,
  type InstalledLoad,
  type InstalledPower,
  type InstalledSource,
  type InstalledSupply,
  type InstalledTransistor,
  type InstalledWire,
} from './installation.js';
