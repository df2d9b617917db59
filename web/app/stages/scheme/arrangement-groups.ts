import type { Option } from '../../controls/choice';

const option = (value: string, name: string, hint = ''): Option => ({ value, name, hint });

/** The shipped arrangements by what they are about, each as it is said at the machine. */
export const arrangementGroups: readonly {
  readonly name: string;
  readonly options: readonly Option[];
}[] = [
  {
    name: 'Start and stop',
    options: [
      option('twoWire', 'two-wire from a selector, one direction'),
      option('twoWireSelector', 'two-wire both ways from one selector'),
      option('twoWireTwoContacts', 'two-wire both ways from two contacts'),
      option('runAndDirection', 'run contact and direction contact'),
      option('threeWireSeparate', 'three-wire, start and stop fed separately'),
      option('threeWireChained', 'three-wire, start fed through stop'),
      option('threeWireDirection', 'three-wire with direction selector'),
      option('threeWireTwoStarts', 'three-wire with one start each way'),
      option('severalStations', 'three-wire from three stations'),
      option('sealInDrive24', 'seal-in relay on the device’s 24 V'),
      option('sealInOwn24', 'seal-in relay on a supply of its own'),
      option('lineContactor', 'line contactor with latch, then a contact'),
    ],
  },
  {
    name: 'Emergency stop, stops and interlocks',
    options: [
      option('estopContactor', 'emergency stop on the line contactor alone'),
      option('contactorOnOnly', 'the same, contactor without an off button'),
      option('contactorNoLatch', 'contactor that closes when the mushroom is released'),
      option('estopContactorInhibit', 'emergency stop on contactor and inhibit together'),
      option('estopTorqueOff', 'emergency stop on safe torque off, two contacts'),
      option('estopTorqueOffOneContact', 'emergency stop on safe torque off, one contact'),
      option('estopTorqueOffAndFeed', 'safe torque off and a contact in the control feed'),
      option('footStopBrake', 'foot stop with a mechanical brake'),
      option('interlocks', 'interlocks: level, pressure, guard, thermostat'),
    ],
  },
  {
    name: 'Controller',
    options: [
      option('controllerRelay', 'controller with relay contacts'),
      option('controllerTransistor', 'controller with transistors'),
      option('controllerVoltage', 'controller, speed by 0–10 V'),
      option('controllerCurrent', 'controller, speed by 4–20 mA'),
      option('controllerStage', 'the same, its output needs 24 V of its own'),
      option('controllerHandshake', 'controller waits for the run contact'),
      option('permissionController', 'controller, a valve has to answer first'),
    ],
  },
  {
    name: 'Speed',
    options: [
      option('presets', 'presets from a selector'),
      option('presetSwitches', 'a switch for each preset beside a dial'),
      option('jogBothWays', 'jog both ways beside three-wire'),
      option('jogSelect', 'a switch that chooses the jog speed'),
      option('upDown', 'up and down buttons'),
      option('panelDial', 'dial of the device'),
      option('analogueSecond', 'dial at the second analogue input'),
      option('secondRamp', 'a second pair of ramps'),
    ],
  },
  {
    name: 'Around it',
    options: [
      option('localRemote', 'local and remote'),
      option('outputContactor', 'contactor between device and motor, in its sequence'),
      option('outputContactorEstop', 'the same beside a line contactor with inhibit'),
      option('startWarning', 'start warning before a level contact starts it'),
      option('permissionDamper', 'a damper has to answer before a level contact runs it'),
      option('brakeRelease', 'brake opened by the device'),
      option('lamps', 'lamps: running, stop released'),
      option('lampStopped', 'lamps: running, stopped'),
      option('lightAndFan', 'work light and panel fan at the contactor'),
    ],
  },
];

/** The arrangements of a soft starter, each as it is said at the machine. */
export const starterGroups: typeof arrangementGroups = [
  {
    name: 'Start and stop',
    options: [
      option('twoWire', 'two-wire from a selector, no contactor'),
      option('twoWireContactor', 'two-wire, a relay of the device closes the contactor'),
      option('threeWire', 'three-wire, start and stop fed separately, no contactor'),
      option('threeWireChained', 'three-wire, start fed through stop'),
      option('threeWireContactor', 'three-wire, a relay of the device closes the contactor'),
      option('threeWireButtons', 'three-wire, contactor with buttons of its own'),
      option('softStop', 'three-wire with a soft stop'),
      option('sealInControl', 'seal-in relay on the control supply'),
      option('controllerRelay', 'controller with relay contacts'),
    ],
  },
  {
    name: 'Two directions',
    options: [
      option('twoDirections', 'an enable each way from one selector'),
      option('twoDirectionsEnds', 'the same with a contact at each end of the way'),
    ],
  },
  {
    name: 'Emergency stop and around it',
    options: [
      option('estopContactor', 'emergency stop on contactor and control feed'),
      option('estopContactorButtons', 'the same, contactor with buttons of its own'),
      option('guarded', 'guard contact in the stop'),
      option('insideDelta', 'inside the delta of the motor'),
      option('guardLocked', 'guard locked until standstill'),
      option('permissionLubricator', 'a lubricator has to answer before it runs'),
      option('windingSensors', 'sensors in the windings'),
      option('lampsContactor', 'lamps: running, contactor closed'),
    ],
  },
];

/** Ways to start by a pulse from a hand. */
export const pulseSchools: readonly (string | undefined)[] = [
  'threeWire',
  'threeWireTwoStarts',
  'sealInRelay',
];
