import * as v from 'valibot';
import { quantity } from './quantities.js';

const hertz = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(600));
const seconds = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(3600));
const percent = (most: number) => v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(most));
const several = <const T extends readonly [string, ...string[]]>(names: T) =>
  v.optional(v.pipe(v.array(v.picklist(names)), v.maxLength(8)));

/** The operator's wishes. A wish that was not asked yet is absent, never guessed. */
export const schemeSchema = v.strictObject({
  startStop: v.optional(
    v.picklist([
      'twoWire',
      'threeWire',
      'threeWireTwoStarts',
      'sealInRelay',
      'lineContactor',
      'keypad',
      'controller',
    ]),
  ),
  /** What gives the two-wire command. */
  startBy: v.optional(
    v.picklist(['selector', 'keySwitch', 'levelContact', 'pressureContact', 'maintainedButton']),
  ),
  /** What the controller gives its commands with: relay contacts, or transistors with a leakage current. */
  controllerOutput: v.optional(v.picklist(['relay', 'transistor'])),
  /** The controller waits for the run contact of the device before it gives a speed. */
  handshake: v.optional(v.boolean()),
  direction: v.optional(v.picklist(['forwardOnly', 'forwardReverse'])),
  /** Forward and reverse from one three-position selector or from two contacts that can be closed together. */
  directionBy: v.optional(v.picklist(['selector', 'twoContacts', 'runAndDirection'])),
  /** Stations with a start and a stop each: stops in series, starts in parallel. */
  stations: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(4))),
  /** Whether the start contacts are fed through the stop contact, or each on its own. */
  stationFeed: v.optional(v.picklist(['separate', 'chained'])),
  /** How the seal-in relay is mounted: screw terminals, or a plug-in base with its own numbers. */
  relayBase: v.optional(v.picklist(['screw', 'plug8', 'plug11'])),
  /** Supply of the seal-in relay: the device's own 24 V, or a supply that outlives the device's power. */
  latchSupply: v.optional(v.picklist(['drive24', 'own24'])),
  speed: v.optional(
    v.picklist(['dial', 'keypad', 'panelDial', 'voltage', 'current', 'presets', 'upDown']),
  ),
  /** What the controller shows or sends as its full signal: 60 m/min, 1500 rpm, 100 %. */
  fullScale: v.optional(
    v.strictObject({
      value: v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(1_000_000)),
      unit: v.pipe(v.string(), v.trim(), v.minLength(1, 'a unit'), v.maxLength(12)),
    }),
  ),
  /** Analogue input at which the dial or signal is landed; the first where nothing is said. */
  analogueInput: v.optional(v.picklist(['first', 'second'])),
  /** The speed output of the controller needs 24 V of its own. */
  stageSupply: v.optional(v.boolean()),
  dialOhm: v.optional(quantity('resistance', { min: 1 })),
  minHz: v.optional(hertz),
  maxHz: v.optional(hertz),
  accelS: v.optional(seconds),
  decelS: v.optional(seconds),
  accel2S: v.optional(seconds),
  decel2S: v.optional(seconds),
  stopMode: v.optional(v.picklist(['ramp', 'coast'])),
  /** A contactor between a drive and its motor, with the sequence that keeps it from opening under load. */
  outputContactor: v.optional(v.boolean()),
  /** A soft starter: whether a line contactor lies ahead, and what closes it. */
  lineContactor: v.optional(v.picklist(['none', 'byRelay', 'byButtons'])),
  /** How a line contactor with a latch of its own is opened: by a button, by the emergency stop alone; or it has no latch. */
  contactorLatch: v.optional(v.picklist(['onOff', 'onOnly', 'none'])),
  /** A soft starter in the line, or each of its poles in series with a winding: six leads, no links at the motor. */
  starterConnection: v.optional(v.picklist(['line', 'insideDelta'])),
  /** How a soft starter brings the voltage on; what is not said is recommended by the plates. */
  startKind: v.optional(v.picklist(['voltage', 'torque'])),
  beginPct: v.optional(percent(100)),
  limitPct: v.optional(percent(800)),
  kick: v.optional(v.boolean()),
  tripClass: v.optional(v.picklist(['10A', '10', '20', '30'])),
  endTorquePct: v.optional(percent(100)),
  inhibitS: v.optional(seconds),
  reversePauseS: v.optional(seconds),
  /** What must happen when power returns with the start contact still closed. */
  powerReturn: v.optional(v.picklist(['stayStopped', 'restart'])),
  /** Who can be at the machine. */
  exposed: v.optional(v.picklist(['nobody', 'behindGuard', 'atMachine'])),
  contactsSwitch: v.optional(v.picklist(['plus24', 'zeroVolt'])),
  stationLength: v.optional(quantity('length')),
  /** Field wires go straight to the device, over a terminal strip in the panel, or over a plug for each cable. */
  fieldWires: v.optional(v.picklist(['direct', 'strip', 'plug'])),
  /** What the emergency stop acts on. `contactor` alone cuts the supply of a running drive. */
  estop: v.optional(
    v.picklist([
      'none',
      'safeTorqueOff',
      'safeTorqueOffOneContact',
      'contactor',
      'contactorInhibit',
      'outputInhibit',
    ]),
  ),
  /** One more contact of the emergency stop in the feed of the control inputs. */
  estopInFeed: v.optional(v.boolean()),
  /** Time in which the machine must be at rest from its highest speed, s: by the assessment of the machine. */
  restWithinS: v.optional(seconds),
  footStop: v.optional(v.picklist(['none', 'stop', 'withBrake'])),
  /** Contacts that must be closed for a run. */
  interlocks: several(['level', 'pressure', 'guard', 'thermostat']),
  /** The guard stays locked for this time after the line contactor has opened, s: longer than the machine runs down. */
  guardLockS: v.optional(seconds),
  /** The windings have sensors that the device watches; without them its link stands in their place. */
  thermistor: v.optional(v.picklist(['none', 'sensor'])),
  /** A contact at each end of the way opens the direction that leads there. */
  endLimits: v.optional(v.boolean()),
  /** A part of the machine that has to be ready before the motor runs: it is asked, and its contact answers. */
  permission: v.optional(v.picklist(['damper', 'valve', 'lubricator'])),
  /** Time in which it has answered, s. */
  permissionS: v.optional(seconds),
  /** Time for which a horn sounds before the motor may start, s. */
  startWarningS: v.optional(seconds),
  /** Buttons that run the motor while they are held, or a switch that only chooses the jog speed for a run given otherwise. */
  jog: v.optional(v.picklist(['none', 'forward', 'bothWays', 'select'])),
  jogHz: v.optional(hertz),
  presetsHz: v.optional(v.pipe(v.array(hertz), v.maxLength(15))),
  /** One selector for all presets, or a switch for each that can be closed together with the others. */
  presetsBy: v.optional(v.picklist(['selector', 'switches'])),
  secondRamp: v.optional(v.boolean()),
  localRemote: v.optional(v.boolean()),
  /** A brake opened by the device's relay while the motor holds the load. */
  brakeRelease: v.optional(v.boolean()),
  status: several(['running', 'healthy', 'atSpeed', 'fault', 'ready', 'meter']),
  /** Lamps: of the device's relays, or of what the circuit itself shows. */
  lamps: several(['running', 'stopped', 'healthy', 'stopReleased', 'contactorClosed']),
  /** On which side of the line contactor a load lies: it stays on, or goes with it. */
  workLight: v.optional(v.picklist(['none', 'stays', 'goes'])),
  panelFan: v.optional(v.picklist(['none', 'stays', 'goes'])),
});
export type Scheme = v.InferOutput<typeof schemeSchema>;
