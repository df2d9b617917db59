import type { Job } from '@tactron/core/job';
import type { Quantity } from '@tactron/core/units';

type Plate = Job['plate'];
const q = (text: string): never => {
  const [v, ...u] = text.split(' ');
  return { v: Number(v), u: u.join(' ') } satisfies Quantity as never;
};

/** A motor plate as stamped: power, connection, both voltages and currents, and the data sheet's ratios. */
function motor(power: string, connection: 'deltaStar' | 'seriesParallel', volts: [number, number], amps: [number, number], hz: number, rpm: number, pf: number, eta: number, ratios: [number, number, number], inertia: number, link: Plate['motor']['link']): Plate['motor'] {
  return {
    power: q(power), connection, lowV: q(`${volts[0]} V`), highV: q(`${volts[1]} V`), lowA: q(`${amps[0]} A`), highA: q(`${amps[1]} A`), hz: q(`${hz} Hz`), rpm: q(`${rpm} rpm`),
    powerFactor: pf, efficiency: eta, lockedCurrentRatio: ratios[0], lockedTorqueRatio: ratios[1], breakdownRatio: ratios[2], inertia: q(`${inertia} kg·m²`), link,
  };
} // prettier-ignore

const maltings: Plate['supply'] = { phases: 3, volts: q('400 V'), hz: q('50 Hz'), earthing: 'TN-S', transformer: q('250 kVA'), impedancePct: 4 };
const workshop: Plate['supply'] = { phases: 1, volts: q('230 V'), hz: q('50 Hz'), earthing: 'TN-S' };
const sawyard: Plate['supply'] = { phases: 3, volts: q('480 V'), hz: q('60 Hz'), earthing: 'TN-S', transformer: q('500 kVA'), impedancePct: 5 };

const drumMotor = motor('7.5 kW', 'deltaStar', [400, 690], [14.4, 8.3], 50, 1460, 0.83, 0.907, [7.2, 2.3, 3], 0.036, 'delta');
const drum = (metres: number, serial: string): Plate => ({
  motor: { ...drumMotor, serial },
  supply: maltings,
  load: { name: 'Germination drum, grain off centre, rolls back after coasting', kind: 'constant', torquePct: 70, breakawayPct: 130, gearRatio: 730, gearEfficiency: 0.9, inertia: q('14200 kg·m²'), rpm: q('2 rpm'), overhauls: true, forwardMeans: 'grain turns towards the gallery', stopsPerHour: 4 },
  cable: { length: q(`${metres} m`), size: { mm2: 2.5 }, cores: 4, screened: true },
  line: {
    isolator: { ratedA: q('32 A') }, protection: { kind: 'breaker', ratedA: q('25 A'), breaking: q('10 kA'), feedLength: q('25 m'), feedSize: { mm2: 6 }, reinforcedPe: true },
    inputFilter: { leakage: q('9 mA'), sidesChecked: true }, brake: { torque: q('80 Nm'), supply: 'separate' },
  },
  place: { altitude: q('180 m'), ambient: q('35 °C'), carrierKHz: 4 },
  control: {
    supply24: q('2.5 A'), reservePct: 20, fuse: q('6 A'), wire: { mm2: 1 },
    loads: {
      station: { ord: 1, name: 'Station lamps', on: 'supply24', amps: q('40 mA') }, release: { ord: 2, name: 'Brake release relay', on: 'supply24', amps: q('45 mA'), inrush: q('90 mA') },
      safety: { ord: 3, name: 'Safety relay', on: 'supply24', amps: q('180 mA'), inrush: q('600 mA') },
    },
  },
}); // prettier-ignore

/** Plates of every demo job, as a person would type them off the metal and the data sheet. */
export const plates: Readonly<Record<string, Plate>> = {
  'FM-DRUM-1': { ...drum(35, 'GD-0417'), arrival: {
    a1: { ord: 1, kind: 'guard', text: 'Mesh guard around the gear, key with the maltster' }, a2: { ord: 2, kind: 'missing', text: 'Two covers of the cable duct' }, a3: { ord: 3, kind: 'interlock', text: 'Old limit switch at the loading hatch, wires cut' },
  } },
  'FM-DRUM-2': drum(41, 'GD-0418'),
  'FM-AUGER': {
    motor: motor('2.2 kW', 'deltaStar', [230, 400], [7.8, 4.5], 50, 1440, 0.81, 0.87, [6.4, 2.4, 3], 0.0092, 'star'),
    supply: maltings,
    load: { name: 'Auger behind a fixed guard', kind: 'constant', torquePct: 75, breakawayPct: 140, gearRatio: 9.6, gearEfficiency: 0.94, inertia: q('0.85 kg·m²'), rpm: q('150 rpm'), forwardMeans: 'malt towards the kiln' },
    cable: { length: q('48 m'), size: { mm2: 1.5 }, cores: 4, screened: true },
    line: { protection: { kind: 'breaker', ratedA: q('10 A'), breaking: q('10 kA'), feedLength: q('18 m'), feedSize: { mm2: 2.5 } } },
  },
  'FM-DOSE': {
    motor: motor('0.75 kW', 'deltaStar', [230, 400], [3, 1.72], 50, 1420, 0.76, 0.826, [5.2, 2.4, 2.8], 0.0023, 'delta'),
    supply: workshop,
    load: { name: 'Grist dosing screw', kind: 'constant', torquePct: 60, gearRatio: 22.9, gearEfficiency: 0.93, inertia: q('0.12 kg·m²'), rpm: q('62 rpm') },
    cable: { length: q('12 m'), size: { mm2: 1.5 }, cores: 4, screened: true },
    line: { protection: { kind: 'breaker', ratedA: q('10 A') }, contactor: { ratedA: q('9 A'), perHour: 2 } },
  },
  'FM-ROTARY': {
    motor: motor('1.1 kW', 'deltaStar', [230, 400], [4.2, 2.4], 50, 1435, 0.78, 0.843, [6.1, 2.5, 2.9], 0.0036, 'star'),
    supply: maltings,
    load: { name: 'Rotary valve of the dust house', kind: 'constant', torquePct: 55, breakawayPct: 120, gearRatio: 57.4, gearEfficiency: 0.92, inertia: q('1.6 kg·m²'), rpm: q('25 rpm') },
    cable: { length: q('62 m'), size: { mm2: 1.5 }, cores: 4, screened: true },
    place: { zone: 'dust' },
  },
  'FM-CRUSH': {
    motor: motor('37 kW', 'deltaStar', [400, 690], [66.8, 38.6], 50, 1480, 0.85, 0.94, [7.1, 2.2, 2.7], 0.44, 'delta'),
    supply: maltings,
    load: { name: 'Malt crusher, starts empty, coasts about 55 s', kind: 'square', basePct: 8, torquePct: 10, gearRatio: 1, gearEfficiency: 1, inertia: q('8.5 kg·m²'), rpm: q('1480 rpm') },
    cable: { length: q('30 m'), size: { mm2: 25 }, pe: { mm2: 16 }, cores: 4 },
    line: { isolator: { ratedA: q('125 A') }, contactor: { ratedA: q('80 A') } },
  },
  'FM-GATE': {
    motor: motor('1.5 kW', 'deltaStar', [230, 400], [5.6, 3.2], 50, 1435, 0.79, 0.856, [6.3, 2.6, 3.1], 0.0045, 'star'),
    supply: maltings,
    load: { name: 'Loading gate, irreversible screw', kind: 'constant', torquePct: 60, breakawayPct: 150, gearRatio: 41, gearEfficiency: 0.75, inertia: q('0.9 kg·m²'), rpm: q('35 rpm') },
    cable: { length: q('25 m'), size: { mm2: 1.5 }, cores: 4 },
  },
  'LS-DEBARK': {
    motor: { ...motor('15 hp', 'seriesParallel', [230, 460], [37.6, 18.8], 60, 1770, 0.81, 0.924, [6.2, 1.8, 2.5], 0.088, 'series'), serviceFactor: 1.15 },
    supply: sawyard,
    load: { name: 'Feed rolls of the debarker', kind: 'constant', torquePct: 70, breakawayPct: 150, gearRatio: 25.3, gearEfficiency: 0.94, inertia: q('12.1 kg·m²'), rpm: q('70 rpm') },
    cable: { length: q('180 ft'), size: { awg: '10' }, cores: 4, screened: true },
    line: { protection: { kind: 'breaker', ratedA: q('40 A'), breaking: q('25 kA'), feedLength: q('60 ft'), feedSize: { awg: '8' }, reinforcedPe: true }, reactor: { pct: 3 } },
    control: { transformer: q('150 VA'), secondary: q('120 V'), loads: { pilot: { ord: 1, name: 'Pilot relay', on: 'transformer', holdingVA: q('9 VA'), inrushVA: q('60 VA') }, horn: { ord: 2, name: 'Start warning horn', on: 'transformer', holdingVA: q('12 VA') } } },
  },
  'LS-CHIP': {
    motor: { ...motor('60 hp', 'seriesParallel', [230, 460], [137.8, 68.9], 60, 1785, 0.86, 0.95, [6.3, 1.6, 2.3], 0.41, 'series'), serviceFactor: 1.15 },
    supply: sawyard,
    load: { name: 'Disc chipper with blowing paddles', kind: 'square', basePct: 5, torquePct: 55, gearRatio: 1, gearEfficiency: 1, inertia: q('9.5 kg·m²'), rpm: q('1785 rpm') },
    cable: { length: q('140 ft'), size: { awg: '3' }, cores: 4 },
  },
}; // prettier-ignore
