import type { Scheme } from '../job/index.js';

/** A named arrangement as wishes: what a person picks, and what the tests land on every family. */
export interface ShippedArrangement {
  readonly id: string;
  readonly scheme: Scheme;
}

const dial: Scheme = { speed: 'dial', dialOhm: { v: 5, u: 'kΩ' } };
const one: Scheme = {
  ...dial,
  direction: 'forwardOnly',
  powerReturn: 'stayStopped',
  exposed: 'atMachine',
};
const both: Scheme = { ...one, direction: 'forwardReverse' };
const twoWire: Scheme = { ...one, startStop: 'twoWire', startBy: 'selector' };
const threeWire: Scheme = { ...one, startStop: 'threeWire', stationFeed: 'separate' };
const controller: Scheme = {
  ...one,
  startStop: 'controller',
  controllerOutput: 'relay',
  exposed: 'behindGuard',
};

const all: readonly (readonly [string, Scheme])[] = [
  ['twoWire', twoWire],
  [
    'twoWireSelector',
    { ...both, startStop: 'twoWire', startBy: 'selector', directionBy: 'selector' },
  ],
  [
    'twoWireTwoContacts',
    { ...both, startStop: 'twoWire', startBy: 'maintainedButton', directionBy: 'twoContacts' },
  ],
  [
    'runAndDirection',
    { ...both, startStop: 'twoWire', startBy: 'selector', directionBy: 'runAndDirection' },
  ],
  ['threeWireSeparate', threeWire],
  ['threeWireChained', { ...threeWire, stationFeed: 'chained' }],
  ['threeWireDirection', { ...both, startStop: 'threeWire', stationFeed: 'separate' }],
  ['threeWireTwoStarts', { ...both, startStop: 'threeWireTwoStarts', stationFeed: 'separate' }],
  ['severalStations', { ...threeWire, stations: 3 }],
  ['sealInDrive24', { ...one, startStop: 'sealInRelay', latchSupply: 'drive24' }],
  ['sealInOwn24', { ...one, startStop: 'sealInRelay', latchSupply: 'own24' }],
  ['lineContactor', { ...twoWire, startStop: 'lineContactor' }],
  ['estopContactor', { ...twoWire, estop: 'contactor' }],
  ['contactorOnOnly', { ...threeWire, estop: 'contactor', contactorLatch: 'onOnly' }],
  ['contactorNoLatch', { ...threeWire, estop: 'contactorInhibit', contactorLatch: 'none' }],
  ['estopContactorInhibit', { ...twoWire, estop: 'contactorInhibit' }],
  ['estopTorqueOff', { ...threeWire, estop: 'safeTorqueOff' }],
  ['estopTorqueOffOneContact', { ...threeWire, estop: 'safeTorqueOffOneContact' }],
  ['estopTorqueOffAndFeed', { ...threeWire, estop: 'safeTorqueOff', estopInFeed: true }],
  ['footStopBrake', { ...threeWire, footStop: 'withBrake' }],
  ['interlocks', { ...threeWire, interlocks: ['level', 'pressure', 'guard', 'thermostat'] }],
  ['outputContactor', { ...threeWire, outputContactor: true }],
  ['outputContactorEstop', { ...twoWire, estop: 'contactorInhibit', outputContactor: true }],
  [
    'startWarning',
    {
      ...twoWire,
      startBy: 'levelContact',
      startWarningS: 5,
      powerReturn: 'restart',
      exposed: 'behindGuard',
    },
  ],
  ['brakeRelease', { ...threeWire, brakeRelease: true }],
  ['controllerRelay', controller],
  ['controllerTransistor', { ...controller, controllerOutput: 'transistor' }],
  ['controllerVoltage', { ...controller, speed: 'voltage' }],
  ['analogueSecond', { ...threeWire, analogueInput: 'second' }],
  ['controllerStage', { ...controller, speed: 'current', stageSupply: true }],
  ['controllerCurrent', { ...controller, speed: 'current' }],
  ['controllerHandshake', { ...controller, speed: 'voltage', handshake: true }],
  [
    'permissionDamper',
    {
      ...twoWire,
      startBy: 'levelContact',
      permission: 'damper',
      permissionS: 6,
      powerReturn: 'restart',
      exposed: 'behindGuard',
    },
  ],
  [
    'permissionController',
    {
      ...controller,
      direction: 'forwardReverse',
      permission: 'valve',
      permissionS: 4,
      powerReturn: 'restart',
    },
  ],
  ['lampStopped', { ...twoWire, lamps: ['running', 'stopped'] }],
  ['jogSelect', { ...twoWire, jog: 'select', jogHz: 8 }],
  ['lamps', { ...threeWire, lamps: ['running', 'stopReleased'] }],
  [
    'lightAndFan',
    {
      ...twoWire,
      estop: 'contactor',
      lamps: ['contactorClosed'],
      workLight: 'stays',
      panelFan: 'goes',
    },
  ],
  ['presets', { ...twoWire, speed: 'presets', presetsHz: [15, 30, 45] }],
  ['presetSwitches', { ...threeWire, presetsHz: [20, 35], presetsBy: 'switches' }],
  [
    'jogBothWays',
    { ...both, startStop: 'threeWire', stationFeed: 'separate', jog: 'bothWays', jogHz: 5 },
  ],
  ['upDown', { ...threeWire, speed: 'upDown' }],
  ['localRemote', { ...threeWire, localRemote: true }],
  ['secondRamp', { ...twoWire, secondRamp: true, accel2S: 8, decel2S: 8 }],
  ['panelDial', { ...twoWire, startBy: 'maintainedButton', speed: 'panelDial' }],
];

/** Every arrangement Tactron ships as a scheme; with `standardScript` each has its script. */
export const shippedArrangements: readonly ShippedArrangement[] = all.map(([id, scheme]) => ({
  id,
  scheme,
}));

const fixedSpeed: Scheme = {
  direction: 'forwardOnly',
  powerReturn: 'stayStopped',
  exposed: 'nobody',
  stopMode: 'coast',
  lineContactor: 'none',
};
const byRelay: Scheme = { ...fixedSpeed, exposed: 'atMachine', lineContactor: 'byRelay' };
const byButtons: Scheme = { ...byRelay, lineContactor: 'byButtons' };
const pulses: Scheme = { startStop: 'threeWire', stationFeed: 'separate' };
const level: Scheme = { startStop: 'twoWire', startBy: 'selector' };
const ways: Scheme = { ...level, direction: 'forwardReverse', directionBy: 'selector' };

/** Arrangements of a device that feeds its motor at the frequency of the supply. */
export const starterArrangements: readonly ShippedArrangement[] = (
  [
    ['twoWire', { ...fixedSpeed, ...level }],
    ['twoWireContactor', { ...byRelay, ...level }],
    ['threeWire', { ...fixedSpeed, ...pulses }],
    ['threeWireChained', { ...fixedSpeed, ...pulses, stationFeed: 'chained' }],
    ['threeWireContactor', { ...byRelay, ...pulses }],
    ['threeWireButtons', { ...byButtons, ...pulses }],
    ['softStop', { ...byRelay, ...pulses, stopMode: 'ramp', decelS: 6 }],
    ['twoDirections', { ...fixedSpeed, ...ways }],
    ['twoDirectionsEnds', { ...byButtons, ...ways, endLimits: true }],
    ['sealInControl', { ...byRelay, startStop: 'sealInRelay', latchSupply: 'drive24' }],
    ['controllerRelay', { ...byRelay, startStop: 'controller', controllerOutput: 'relay' }],
    ['estopContactor', { ...byRelay, ...pulses, estop: 'contactor', estopInFeed: true }],
    [
      'estopContactorButtons',
      {
        ...fixedSpeed,
        ...level,
        lineContactor: 'byButtons',
        estop: 'contactor',
        estopInFeed: true,
      },
    ],
    ['guarded', { ...byRelay, ...pulses, interlocks: ['guard'] }],
    ['insideDelta', { ...byRelay, ...pulses, starterConnection: 'insideDelta' }],
    ['windingSensors', { ...byRelay, ...pulses, thermistor: 'sensor' }],
    ['guardLocked', { ...byRelay, ...pulses, interlocks: ['guard'], guardLockS: 120 }],
    [
      'permissionLubricator',
      {
        ...byRelay,
        startStop: 'sealInRelay',
        latchSupply: 'drive24',
        permission: 'lubricator',
        permissionS: 8,
      },
    ],
    ['lampsContactor', { ...byRelay, ...pulses, lamps: ['running', 'contactorClosed'] }],
  ] as const satisfies readonly (readonly [string, Scheme])[]
).map(([id, scheme]) => ({ id, scheme }));

/** Arrangements to begin from on a device, by whether it changes the speed. */
export const arrangementsFor = (speeds: boolean): readonly ShippedArrangement[] =>
  speeds ? shippedArrangements : starterArrangements;

/** Wishes that make one arrangement of start, direction and speed: one without the others would be another arrangement. */
const together = [
  'startStop',
  'startBy',
  'controllerOutput',
  'handshake',
  'direction',
  'directionBy',
  'stations',
  'stationFeed',
  'latchSupply',
  'speed',
  'endLimits',
  'lineContactor',
  'starterConnection',
] as const satisfies readonly (keyof Scheme)[];

/** Facts of the place and figures: the arrangement's are only a beginning, the job's own stay. */
const own: readonly string[] = [
  'exposed',
  'powerReturn',
  'dialOhm',
  'presetsHz',
  'jogHz',
  'startWarningS',
  'permissionS',
  'accel2S',
  'decel2S',
];

/**
 * The wishes of a job that starts anew from a shipped arrangement: its start, direction and speed as a whole, and what else
 * it speaks of. All other wishes, an emergency stop above all, and the job's own facts and figures stay.
 *
 * @example startFrom({ estop: 'safeTorqueOff', startStop: 'keypad' }, { id: 'twoWire', scheme: twoWire }).estop // 'safeTorqueOff'
 */
export function startFrom(scheme: Scheme, { scheme: wanted }: ShippedArrangement): Scheme {
  const others = Object.entries(scheme).filter(([k]) => !together.some((t) => t === k));
  const mine = others.filter(([k, value]) => own.includes(k) && value !== undefined);
  return { ...Object.fromEntries(others), ...wanted, ...Object.fromEntries(mine) };
}
