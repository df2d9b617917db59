import { shippedProfile, type Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';

const q = <U extends string>(v: number, u: U) => ({ v, u });
const n = shippedProfile('ondulet-n');
const t = shippedProfile('quernstone-t');
const s = shippedProfile('pendrift-s');

/** Each finding of the plates with the change of a sound job that causes it, and the device where it is not the usual one. */
export const plateCauses: readonly (readonly [
  rule: string,
  change: (plate: Job['plate'], job: Job) => void,
  profile?: Profile,
  model?: string,
])[] = [
  [
    'supply.unbalance',
    (p) => void (p.supply.measured = { l12: q(400, 'V'), l23: q(392, 'V'), l31: q(401, 'V') }),
  ],
  [
    'protection.breaking',
    (p) => {
      Object.assign(p.supply, { transformer: q(630, 'kVA'), impedancePct: 4 });
      p.line = {
        protection: { breaking: q(6, 'kA'), feedLength: q(20, 'm'), feedSize: { mm2: 16 } },
      };
    },
  ],
  [
    'device.shortCircuit',
    (p) => void Object.assign(p.supply, { transformer: q(630, 'kVA'), impedancePct: 4 }),
  ],
  ['protection.belowInput', (p) => void (p.line = { protection: { ratedA: q(4, 'A') } })],
  [
    'protection.aboveFeed',
    (p) => void (p.line = { protection: { ratedA: q(32, 'A'), feedSize: { mm2: 2.5 } } }),
  ],
  ['isolator.belowInput', (p) => void (p.line = { isolator: { ratedA: q(3, 'A') } })],
  ['rcd.type', (p) => void (p.line = { rcd: { type: 'A' } })],
  [
    'rcd.leakage',
    (p) =>
      void (p.line = {
        rcd: { type: 'B', rated: q(30, 'mA') },
        inputFilter: { leakage: q(12, 'mA'), sidesChecked: true },
      }),
  ],
  [
    'supply.reinforcedPe',
    (p) =>
      void (p.line = {
        protection: {},
        inputFilter: { leakage: q(5, 'mA'), sidesChecked: true },
      }),
  ],
  ['supply.earthLink', (p) => void (p.supply.earthing = 'IT'), n, 'N0220'],
  ['supply.filterToEarth', (p) => void (p.supply.earthing = 'IT')],
  ['capacitor.output', (p) => void (p.line = { capacitor: { at: 'output' } })],
  ['capacitor.supply', (p) => void (p.line = { capacitor: { at: 'supply' } })],
  ['filter.sides', (p) => void (p.line = { inputFilter: {} })],
  [
    'plug.fuseBelowInput',
    (p) => void (p.line = { isolator: { plug: 'industrial', fuse: q(1, 'A') } }),
  ],
  [
    'plug.fuseAboveFeed',
    (p) =>
      void (p.line = {
        isolator: { plug: 'industrial', fuse: q(63, 'A') },
        protection: { feedSize: { mm2: 1.5 }, feedLength: q(3, 'm') },
      }),
  ],
  [
    'plug.leakage',
    (p) =>
      void (p.line = {
        isolator: { plug: 'household' },
        inputFilter: { leakage: q(5, 'mA'), sidesChecked: true },
      }),
  ],
  ['contactor.rate', (p) => void (p.line = { contactor: { perHour: 60 } })],
  ['device.currentShort', (p) => void (p.place = { ambient: q(52, '°C') })],
  ['device.overloadShort', (p) => void (p.load.breakawayPct = 190)],
  ['ramp.accelShort', (_p, j) => void (j.scheme.accelS = 0.05)],
  ['ramp.decelShort', (_p, j) => void (j.scheme.decelS = 0.1)],
  ['resistor.noChopper', (p) => void (p.line = { resistor: { ohm: q(100, 'Ω') } })],
  [
    'resistor.tooSmall',
    (p) => void (p.line = { resistor: { ohm: q(20, 'Ω'), thermalContact: true } }),
    n,
    'N0220',
  ],
  [
    'resistor.tooLarge',
    (p, j) => {
      p.line = { resistor: { ohm: q(9, 'kΩ'), thermalContact: true } };
      p.load.overhauls = true;
      p.line.brake = {};
      j.scheme.decelS = 0.3;
    },
    n,
    'N0220',
  ],
  [
    'resistor.power',
    (p, j) => {
      p.line = {
        resistor: { ohm: q(160, 'Ω'), power: q(5, 'W'), thermalContact: true },
        brake: {},
      };
      Object.assign(p.load, { overhauls: true, stopsPerHour: 600 });
      j.scheme.decelS = 0.3;
    },
    n,
    'N0220',
  ],
  [
    'resistor.thermalContact',
    (p) => void (p.line = { resistor: { ohm: q(160, 'Ω') } }),
    n,
    'N0220',
  ],
  ['place.zone', (p) => void (p.place = { zone: 'dust' })],
  ['place.hot', (p) => void (p.place = { surface: q(0.5, 'm²'), ambient: q(30, '°C') })],
  ['cable.drop', (p) => void (p.cable = { length: q(99, 'm'), size: { mm2: 0.75 } })],
  [
    'cable.ampacity',
    (p) => {
      p.cable.grouped = 9;
      p.cable.ambient = q(60, '°C');
    },
  ],
  ['cable.tooLong', (p) => void (p.cable.length = q(120, 'm'))],
  [
    'cable.pe',
    (p) => {
      p.cable.size = { mm2: 6 };
      p.cable.pe = { mm2: 2.5 };
    },
  ],
  ['cable.reflectedWave', (p) => void (p.motor.insulation = 'general')],
  ['motorIsolator.earlyBreak', (p) => void (p.line = { motorIsolator: {} })],
  ['brake.driveOutput', (p) => void (p.line = { brake: { supply: 'driveOutput' } })],
  ['load.overhaulsNoBrake', (p) => void (p.load.overhauls = true)],
  ['motor.lowSpeed', (_p, j) => void (j.scheme.minHz = 5)],
  [
    'control.transformerShort',
    (p) =>
      void (p.control = {
        transformer: q(40, 'VA'),
        loads: {
          a: {
            ord: 1,
            name: 'coil',
            on: 'transformer',
            holdingVA: q(10, 'VA'),
            inrushVA: q(80, 'VA'),
          },
        },
      }),
  ],
  [
    'control.supplyShort',
    (p) =>
      void (p.control = {
        supply24: q(1, 'A'),
        loads: { a: { ord: 1, name: 'valve', on: 'supply24', amps: q(0.9, 'A') } },
      }),
  ],
  ['control.fuseWire', (p) => void (p.control = { fuse: q(35, 'A'), wire: { mm2: 1 } })],
  ['protection.fastOnly', (p) => void (p.line = { protection: { fastFuses: true } }), s, 'S15'],
  [
    'protection.type2',
    (p) => void (p.line = { protection: { kind: 'breaker', coordination: 'type2' } }),
    s,
    'S15',
  ],
  [
    'protection.fastUnneeded',
    (p) => void (p.line = { protection: { kind: 'breaker', fastFuses: true } }),
    s,
    'S15',
  ],
  ['plate.singlePhaseFeed', (p) => void (p.supply.phases = 1)],
  ['plate.supplyOutsideDevice', (p) => void (p.supply.volts = q(380, 'V')), t, 'T05'],
];
