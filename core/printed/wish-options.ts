/** An answer to a wish: its code, its name, and a word of help. */
export interface WishOption {
  readonly value: string;
  readonly name: string;
  readonly hint?: string;
}

const option = (value: string, name: string, hint = ''): WishOption => ({ value, name, hint });

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
  jogs: [
    option('none', 'none'),
    option('forward', 'button, forward'),
    option('bothWays', 'buttons, both ways'),
    option('select', 'switch, chooses the speed only'),
  ],
  analogueInputs: [option('first', 'the first'), option('second', 'the second')],
  presetsBys: [option('selector', 'one selector'), option('switches', 'a switch for each')],
  contactorLatches: [
    option('onOff', 'an on and an off button'),
    option('onOnly', 'an on button; the emergency stop opens it'),
    option('none', 'nothing: it closes when the emergency stop is let go'),
  ],
  permissions: [
    option('none', 'nothing'),
    option('damper', 'a damper'),
    option('valve', 'a valve'),
    option('lubricator', 'a lubricator'),
  ],
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
    { value: 'plug', name: 'over a plug for each cable' },
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
    option('stopped', 'stopped'),
    option('healthy', 'healthy'),
    option('stopReleased', 'stop released'),
    option('contactorClosed', 'contactor closed'),
  ],
} as const;
