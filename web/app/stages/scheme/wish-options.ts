import type { Option } from '../../controls/choice';

const option = (value: string, name: string, hint = ''): Option => ({ value, name, hint });

/** Answers to every wish, in the electrician's words. */
export const wishOptions = {
  starts: [
    option('threeWire', 'start and stop button (three-wire)'),
    option('threeWireTwoStarts', 'one start button each way'),
    option('twoWire', 'a contact that stays closed (two-wire)'),
    option('sealInRelay', 'seal-in relay'),
    option('lineContactor', 'line contactor gives power, then a contact'),
    option('controller', 'a controller'),
    option('keypad', 'the keypad'),
  ],
  feeds: [
    option('separate', 'start and stop fed separately'),
    option('chained', 'start fed through stop'),
  ],
  latchSupplies: [
    option('drive24', 'the drive’s 24 V'),
    option('own24', 'a 24 V supply of its own'),
  ],
  relayBases: [
    option('screw', 'screw terminals'),
    option('plug8', '8-pin base'),
    option('plug11', '11-pin base'),
  ],
  startBys: [
    option('selector', 'selector 0–1'),
    option('keySwitch', 'key switch'),
    option('maintainedButton', 'maintained button'),
    option('levelContact', 'level contact'),
    option('pressureContact', 'pressure contact'),
  ],
  controllerOutputs: [option('relay', 'relay contacts'), option('transistor', 'transistors')],
  directions: [
    option('forwardOnly', 'forward only'),
    option('forwardReverse', 'forward and reverse'),
  ],
  directionBys: [
    option('selector', 'one selector: reverse – 0 – forward'),
    option('twoContacts', 'two contacts'),
    option('runAndDirection', 'run contact and direction selector'),
  ],
  speeds: [
    option('dial', 'dial at the station'),
    option('voltage', 'controller, 0–10 V'),
    option('current', 'controller, 4–20 mA'),
    option('presets', 'presets'),
    option('upDown', 'up and down buttons'),
    option('panelDial', 'dial of the device'),
    option('keypad', 'keypad of the device'),
  ],
  jogs: [option('none', 'none'), option('forward', 'forward'), option('bothWays', 'both ways')],
  powers: [
    option('stayStopped', 'stays stopped until a new start'),
    option('restart', 'starts by itself'),
  ],
  starterStarts: [
    option('threeWire', 'start and stop button (three-wire)'),
    option('twoWire', 'a contact that stays closed (two-wire)'),
    option('sealInRelay', 'seal-in relay'),
    option('controller', 'a controller'),
  ],
  contactors: [
    option('byRelay', 'closed by a relay of the device'),
    option('byButtons', 'on and off buttons of its own'),
    option('none', 'none'),
  ],
  softStops: [option('coast', 'let go: it coasts'), option('ramp', 'soft stop')],
  startKinds: [option('voltage', 'voltage ramp'), option('torque', 'torque ramp')],
  classes: [option('10A', '10A'), option('10', '10'), option('20', '20'), option('30', '30')],
  starterEstops: [option('none', 'none'), option('contactor', 'line contactor')],
  starterLamps: [
    option('running', 'running'),
    option('healthy', 'healthy'),
    option('contactorClosed', 'contactor closed'),
  ],
  starterStatus: [
    option('running', 'running'),
    option('healthy', 'healthy'),
    option('fault', 'fault'),
    option('ready', 'ready'),
  ],
  exposures: [
    option('nobody', 'nobody'),
    option('behindGuard', 'behind a guard'),
    option('atMachine', 'people at the machine'),
  ],
  stops: [option('ramp', 'along the ramp'), option('coast', 'coasts')],
  logics: [
    option('plus24', '24 V (sourcing contacts)'),
    option('zeroVolt', '0 V (sinking contacts)'),
  ],
  estops: [
    option('none', 'none'),
    option('safeTorqueOff', 'safe torque off, two channels'),
    option('safeTorqueOffOneContact', 'safe torque off, one contact'),
    option('contactorInhibit', 'line contactor and inhibit'),
    option('contactor', 'line contactor alone'),
    option('outputInhibit', 'inhibit input alone'),
  ],
  fieldWires: [
    { value: 'direct', name: 'straight to the device' },
    { value: 'strip', name: 'over a terminal strip' },
  ],
  footStops: [
    option('none', 'none'),
    option('stop', 'stops'),
    option('withBrake', 'stops, with a brake on it'),
  ],
  starterConnections: [
    option('line', 'in the line'),
    option('insideDelta', 'inside the delta, six leads'),
  ],
  windingSensors: [option('none', 'none: the link stays in'), option('sensor', 'at the device')],
  sides: [
    option('none', 'none'),
    option('stays', 'stays on'),
    option('goes', 'goes with the contactor'),
  ],
  interlocks: [
    option('level', 'level'),
    option('pressure', 'pressure'),
    option('guard', 'guard'),
    option('thermostat', 'thermostat'),
  ],
  status: [
    option('running', 'running'),
    option('healthy', 'healthy'),
    option('atSpeed', 'at speed'),
    option('fault', 'fault'),
    option('ready', 'ready'),
    option('meter', 'speed meter'),
  ],
  lamps: [
    option('running', 'running'),
    option('healthy', 'healthy'),
    option('stopReleased', 'stop released'),
    option('contactorClosed', 'contactor closed'),
  ],
} as const;

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
      option('controllerHandshake', 'controller waits for the run contact'),
    ],
  },
  {
    name: 'Speed',
    options: [
      option('presets', 'presets from a selector'),
      option('jogBothWays', 'jog both ways beside three-wire'),
      option('upDown', 'up and down buttons'),
      option('panelDial', 'dial of the device'),
      option('secondRamp', 'a second pair of ramps'),
    ],
  },
  {
    name: 'Around it',
    options: [
      option('localRemote', 'local and remote'),
      option('startWarning', 'start warning before a level contact starts it'),
      option('brakeRelease', 'brake opened by the device'),
      option('lamps', 'lamps: running, stop released'),
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
