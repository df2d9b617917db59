export {
  displayFace,
  monitorShown,
  shownIn,
  type Display,
  type DisplayFace,
  type MonitorShown,
  type Shown,
} from './display.js';
export { shippedProfile, shippedProfiles } from './families.js';
export { planningGaps } from './gaps.js';
export {
  identificationWays,
  identified,
  type Identification,
  type IdentificationWay,
} from './identification.js';
export {
  furtherPolicies,
  profileSchema,
  requiredPolicies,
  requiredStarterPolicies,
  type Model,
  type Policy,
  type Profile,
  type ProfileLink,
  type Setting,
  type Terminal,
} from './profile.js';
export { keyedInto, readyMades, type ReadyMade } from './ready-made.js';
export {
  factoryValue,
  policyValue,
  roleSetting,
  roleValue,
  settingForRole,
  type SettingValues,
  type Value,
} from './roles.js';
export {
  factorySettings,
  firstOfKind,
  changesSpeed,
  controlFeed,
  hasControlSupply,
  hasKeys,
  insideFailures,
  goesInsideDelta,
  rampsTorque,
  sensorLink,
  showsWords,
  isInput,
  inputLogics,
  keepsLineFrequency,
  modelOf,
  presentTerminals,
  protectiveTerminals,
  relaysOf,
  settingsInForce,
  taskCode,
  taskOf,
  type ContactsSwitch,
  type ControlFeed,
  type InputLogic,
  type RelayTerminals,
  linkTerminals,
  resistorTerminals,
  settingRefuses,
  settingsItTakes,
  type SettingRefusal,
} from './questions.js';
export { inputTasks, outputTasks, type InputTask, type OutputTask } from './tasks.js';
