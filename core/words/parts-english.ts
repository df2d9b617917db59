import { n, type Args } from './numbers.js';

const rated =
  (name: string) =>
  (a: Args): string =>
    a['rated'] ? `${name}, ${String(a['rated'])}` : name;
/** Names of device kinds, as on a parts list and at the station. */
export const kinds: Readonly<Record<string, string>> = {
  selectorOffOn: 'Selector 0–1', selectorOnOff: 'Selector 1–0, stays on', selectorReverseOffForward: 'Selector reverse–0–forward', maintainedButton: 'Maintained button', levelContact: 'Level contact',
  pressureContact: 'Pressure contact', potentiometer: 'Potentiometer', breakerThreePole: 'Circuit breaker, three poles', breakerTwoPole: 'Circuit breaker, two poles',
  keySwitch: 'Key switch', startButton: 'Push button, make contact', stopButton: 'Push button, break contact', selectorForwardReverse: 'Selector forward–reverse', selectorRemoteLocal: 'Key switch remote–local',
  presetSelector: 'Preset selector', emergencyStop: 'Emergency stop, latching, three break contacts', footSwitch: 'Foot switch', footBrake: 'Foot treadle with brake', levelInterlock: 'Level contact, opens low',
  pressureInterlock: 'Pressure contact, opens low', guardContact: 'Guard contact', endLimit: 'End contact, opens at the end of the way', thermostat: 'Thermostat, opens hot', windingSensor: 'Sensors in the windings of the motor', guardLock: 'Lock of the guard, magnet to release', controllerContact: 'Relay output of the controller', transistorOutput: 'Transistor output of the controller',
  relay: 'Relay', contactorRelay: 'Contactor relay', contactor: 'Contactor, three poles', timerRelay: 'Timer relay, on-delay', plugConnector: 'Plug and socket', supplyPlug: 'Plug of the supply', actuator: 'Damper, valve or lubricator with an answering contact', brake: 'Spring brake', lamp: 'Lamp', horn: 'Horn', workLight: 'Work light', panelFan: 'Panel fan',
  meter: 'Speed meter, 0–10 V', controllerInput: 'Input of the controller', supply24: '24 V supply', loopSupply: '24 V of the controller', controlTransformer: 'Control transformer', fuse: 'Fuse',
  voltageSource: 'Controller signal, 0–10 V', currentSource: 'Controller signal, 4–20 mA', supplyThreePhase: 'Supply', supplySinglePhase: 'Supply', isolator: 'Supply disconnecting device', inputFilter: 'Input filter', inputReactor: 'Line reactor', outputFilter: 'Output filter', motorIsolator: 'Isolator at the motor', brakingUnit: 'Braking unit', brakingResistor: 'Braking resistor with thermal contact', relayPlug8: 'Relay on an 8-pin base', relayPlug11: 'Relay on an 11-pin base', terminalStrip: 'Terminal strip', motor: 'Motor', drive: 'Drive', starter: 'Soft starter', device: 'Device',
}; // prettier-ignore

/** Parts to order, tools to bring, and what these are for. */
export const parts: Readonly<Record<string, (a: Args) => string>> = {
  'part.device': (a) => `${String(a['title'])} ${String(a['model'])}`,
  'part.isolator': rated('Isolator'), 'part.protection': rated('Protective device'), 'part.transformer': rated('Transformer'), 'part.rcd': rated('Residual-current device'),
  'part.contactor': rated('Line contactor'), 'part.capacitor': rated('Capacitor'), 'part.inputFilter': rated('Input filter'), 'part.reactor': rated('Line reactor'),
  'part.brakingUnit': rated('Braking unit'), 'part.resistor': rated('Braking resistor'), 'part.outputFilter': rated('Output filter'), 'part.motorIsolator': rated('Isolator at the motor, with early-break contact'), 'part.brake': rated('Holding brake'),
  'part.controlTransformer': rated('Control transformer'), 'part.supply24': rated('24 V supply'), 'part.controlFuse': rated('Control fuse'),
  'part.motorCable': (a) => `Motor cable ${String(a['cores'])} × ${String(a['size'])}${a['screened'] ? ', screened' : ''}`,
  'part.feedCable': (a) => `Feed cable, ${String(a['size'])}`,
  'part.controlCable': (a) => `Control cable ${String(a['cores'])} × ${String(a['size'])}`,
  'part.station': (a) => kinds[String(a['kind'])] ?? String(a['kind']),
  'part.suppressor': (a) => `${a['type'] === 'rc' ? 'RC element' : 'Diode'} across the coil, ${String(a['volts'])} V`,
  'part.wire': (a) => `Wire ${String(a['size'])}, ${String(a['colour'])}`,
  'part.ferrules': (a) => `Ferrules for ${String(a['size'])}`,
  'part.markers': () => 'Wire markers',
  'tool.lockout': () => 'Lock, tag, multi-lock hasp', 'tool.lockout.why': () => 'to isolate and keep it so',
  'tool.voltageTester': () => 'Two-pole voltage tester and proving unit', 'tool.voltageTester.why': (a) => (Number(a['volts']) > 0 ? `to prove dead at ${n(a['volts'], 0)} V, tester proved before and after` : 'to prove dead, tester proved before and after'),
  'tool.multimeter': () => 'True-RMS multimeter with low-pass, CAT III 1000 V or CAT IV 600 V', 'tool.multimeter.why': (a) => (Number(a['link']) > 0 ? `volts at the inputs, analogue signals, DC link up to ${n(a['link'], 0)} V` : 'volts at the inputs, analogue signals, DC link'),
  'tool.rotation': () => 'Phase rotation tester', 'tool.rotation.why': () => 'phase order of the supply',
  'tool.clamp': () => 'Clamp meter, true RMS', 'tool.clamp.why': () => 'current of each phase, on the supply side or with a low-pass',
  'tool.insulation': () => 'Insulation tester, 500 V', 'tool.insulation.why': () => 'motor and cable with the device disconnected, never on electronics',
  'tool.lowOhm': () => 'Low-ohm tester', 'tool.lowOhm.why': () => 'protective conductors',
  'tool.torque': () => 'Torque screwdriver', 'tool.torque.why': (a) => `terminals of ${n(a['from'], 1)} to ${n(a['to'], 1)} Nm`,
  'tool.strip': () => 'Stripper and crimp tool', 'tool.strip.why': (a) => `stripping ${String(a['lengths'])} mm, ferrules`,
  'tool.clampPeak': () => 'Clamp meter with peak hold', 'tool.clampPeak.why': () => 'highest current of a start', 'tool.rotationTester': () => 'Rotation tester', 'tool.rotationTester.why': () => 'sequence of the supply before the motor turns',
  'tool.tachometer': () => 'Tachometer', 'tool.tachometer.why': () => 'shaft speed against the expected',
  'tool.calibrator': () => 'Loop calibrator or source', 'tool.calibrator.why': () => 'analogue input without the controller',
  'tool.stopwatch': () => 'Stopwatch', 'tool.stopwatch.why': () => 'ramps and stopping time',
}; // prettier-ignore

/** What is set at a part of the panel or at the controller. */
export const panelSettingNames: Readonly<Record<string, string>> = {
  delayOn: 'time until it changes over',
  delayOff: 'time until it falls back',
  outVolts: 'voltage it is adjusted to',
  tap: 'primary tap',
  overloadDial: 'dial of the overload',
  switchesAt: 'switches at',
  function: 'what this output does',
  signalKind: 'kind of speed signal',
  fullScale: 'value that it sends at full signal',
  zeroTrim: 'trimmer for zero',
  spanTrim: 'trimmer for full scale',
};
