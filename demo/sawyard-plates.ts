import { curve, motor, q, sawyard, type Plate } from './plate-parts';

/** Plates of the sawyard’s machines. */
export const sawyardPlates: Readonly<Record<string, Plate>> = {
  'LS-DEBARK': {
    motor: {
      ...motor(
        '15 hp',
        'seriesParallel',
        [230, 460],
        [37.6, 18.8],
        60,
        1770,
        0.81,
        0.924,
        [6.2, 1.8, 2.5],
        0.088,
        'series',
      ),
      serviceFactor: 1.15,
    },
    supply: sawyard,
    load: {
      name: 'Feed rolls of the debarker',
      kind: 'constant',
      torquePct: 70,
      breakawayPct: 150,
      gearRatio: 25.3,
      gearEfficiency: 0.94,
      inertia: q('12.1 kg·m²'),
      rpm: q('70 rpm'),
    },
    cable: { length: q('180 ft'), size: { awg: '10' }, cores: 4, screened: true },
    line: {
      protection: {
        kind: 'breaker',
        ratedA: q('40 A'),
        breaking: q('25 kA'),
        feedLength: q('60 ft'),
        feedSize: { awg: '8' },
        reinforcedPe: true,
      },
      reactor: { pct: 3 },
    },
    control: {
      transformer: q('150 VA'),
      secondary: q('120 V'),
      loads: {
        pilot: {
          ord: 1,
          name: 'Pilot relay',
          on: 'transformer',
          holdingVA: q('9 VA'),
          inrushVA: q('60 VA'),
        },
        horn: { ord: 2, name: 'Start warning horn', on: 'transformer', holdingVA: q('12 VA') },
      },
    },
  },
  'LS-CHIP': {
    motor: {
      ...motor(
        '60 hp',
        'seriesParallel',
        [230, 460],
        [137.8, 68.9],
        60,
        1785,
        0.86,
        0.95,
        [6.3, 1.6, 2.3],
        0.41,
        'series',
      ),
      serviceFactor: 1.15,
      curve: curve([
        [0, 1.6, 6.3],
        [0.2, 1.45, 6.15],
        [0.4, 1.4, 5.95],
        [0.6, 1.55, 5.6],
        [0.8, 1.95, 4.9],
        [0.9, 2.3, 4.1],
        [0.95, 2.1, 3],
      ]),
    },
    supply: sawyard,
    load: {
      name: 'Disc chipper with blowing paddles',
      kind: 'square',
      basePct: 5,
      torquePct: 55,
      gearRatio: 1,
      gearEfficiency: 1,
      inertia: q('9.5 kg·m²'),
      rpm: q('1785 rpm'),
    },
    cable: { length: q('140 ft'), size: { awg: '3' }, cores: 4 },
  },
};
