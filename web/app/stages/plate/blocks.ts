import type { Job, LineBlock } from '@tactron/core/job';
import { choice, flag, number, quantity, select, size, text, type LineBlockSpec } from './fields';

const connections = [
  ['deltaStar', 'Δ / Y'],
  ['seriesParallel', '9-lead'],
  ['single', 'one voltage'],
] as const;

/** The motor's fields follow its connection: two voltages, two currents and the links, or one of each. */
function motor({ connection = 'single' }: Job['plate']['motor']): LineBlockSpec {
  const dual = connection !== 'single';
  const [low, high] =
    connection === 'deltaStar'
      ? [' Δ', ' Y']
      : connection === 'seriesParallel'
        ? [' parallel', ' series']
        : ['', ''];
  const links =
    connection === 'seriesParallel'
      ? ([
          ['parallel', 'parallel'],
          ['series', 'series'],
        ] as const)
      : ([
          ['delta', 'Δ delta'],
          ['star', 'Y star'],
        ] as const);
  return {
    id: 'motor',
    name: 'Motor',
    fields: [
      { ...choice('motor.connection', 'Connection on the plate', connections), wide: true },
      quantity('motor.power', 'Power', 'power', 'kW'),
      quantity('motor.hz', 'Frequency', 'frequency', 'Hz'),
      quantity('motor.lowV', `Voltage${low}`, 'voltage', 'V'),
      quantity('motor.lowA', `Current${low}`, 'current', 'A'),
      ...(dual
        ? [
            quantity('motor.highV', `Voltage${high}`, 'voltage', 'V'),
            quantity('motor.highA', `Current${high}`, 'current', 'A'),
          ]
        : []),
      quantity('motor.rpm', 'Speed', 'speed', 'rpm'),
      number('motor.powerFactor', 'cos φ'),
      number('motor.efficiency', 'Efficiency η'),
      quantity('motor.inertia', 'Inertia J', 'inertia', 'kg·m²'),
      ...(dual ? [{ ...choice('motor.link', 'Links are in', links), wide: true }] : []),
      {
        ...choice('motor.insulation', 'Winding insulation', [
          ['general', 'general purpose'],
          ['inverterDuty', 'inverter duty'],
        ]),
        wide: true,
      },
    ],
    more: [
      number('motor.lockedCurrentRatio', 'I_A / I_N'),
      number('motor.lockedTorqueRatio', 'T_A / T_N'),
      number('motor.breakdownRatio', 'T_K / T_N'),
      number('motor.pullUpRatio', 'Pull-up / T_N'),
      number('motor.serviceFactor', 'Service factor'),
      choice('motor.cooling', 'Cooling', [
        ['self', 'own fan'],
        ['forced', 'forced'],
      ]),
      text('motor.serial', 'Serial'),
    ],
  };
}

const fixed: readonly LineBlockSpec[] = [
  {
    id: 'supply',
    name: 'Supply',
    fields: [
      choice(
        'supply.phases',
        'Phases',
        [
          ['3', '3-phase'],
          ['1', '1-phase'],
        ],
        true,
      ),
      quantity('supply.volts', 'Voltage', 'voltage', 'V'),
      quantity('supply.hz', 'Frequency', 'frequency', 'Hz'),
      select('supply.earthing', 'Earthing', [
        ['TN-S', 'TN-S'],
        ['TN-C-S', 'TN-C-S'],
        ['TT', 'TT'],
        ['IT', 'IT'],
        ['cornerEarthed', 'corner earthed'],
      ]),
    ],
    more: [
      quantity('supply.transformer', 'Transformer', 'apparentPower', 'kVA'),
      number('supply.impedancePct', 'Impedance, %', '%'),
      quantity('supply.measured.l12', 'Measured L1–L2', 'voltage', 'V'),
      quantity('supply.measured.l23', 'Measured L2–L3', 'voltage', 'V'),
      quantity('supply.measured.l31', 'Measured L3–L1', 'voltage', 'V'),
    ],
  },
  {
    id: 'isolator',
    name: 'Isolator',
    gap: 0,
    fields: [
      quantity('line.isolator.ratedA', 'Rated', 'current', 'A'),
      choice('line.isolator.plug', 'It is a plug', [
        ['industrial', 'for industry'],
        ['household', 'household'],
      ]),
      quantity('line.isolator.fuse', 'Fuse in the plug', 'current', 'A'),
    ],
  },
  {
    id: 'protection',
    name: 'Protection',
    gap: 0,
    fields: [
      select('line.protection.kind', 'Kind', [
        ['breaker', 'circuit breaker'],
        ['fuse', 'fuses'],
        ['motorBreaker', 'motor breaker'],
      ]),
      quantity('line.protection.ratedA', 'Rated', 'current', 'A'),
      quantity('line.protection.breaking', 'Breaking capacity', 'current', 'kA'),
      choice('line.protection.coordination', 'Coordination with a starter', [
        ['type1', 'type 1'],
        ['type2', 'type 2'],
      ]),
      flag('line.protection.fastFuses', 'fast fuses for the thyristors', 'no fast fuses'),
      quantity('line.protection.feedLength', 'Feed to the device', 'length', 'm'),
      size('line.protection.feedSize', 'Its conductor'),
      flag(
        'line.protection.reinforcedPe',
        'protective conductor reinforced',
        'protective conductor as usual',
      ),
    ],
  },
  {
    id: 'transformer',
    name: 'Transformer',
    gap: 0,
    fields: [
      quantity('line.transformer.rating', 'Rating', 'apparentPower', 'kVA'),
      quantity('line.transformer.secondary', 'Secondary', 'voltage', 'V'),
      number('line.transformer.impedancePct', 'Impedance, %', '%'),
    ],
  },
  {
    id: 'rcd',
    name: 'Residual-current device',
    gap: 0,
    fields: [
      choice('line.rcd.type', 'Type', [
        ['AC', 'AC'],
        ['A', 'A'],
        ['F', 'F'],
        ['B', 'B'],
      ]),
      quantity('line.rcd.rated', 'Rated', 'current', 'mA'),
    ],
  },
  {
    id: 'contactor',
    name: 'Line contactor',
    gap: 0,
    fields: [
      quantity('line.contactor.ratedA', 'Rated', 'current', 'A'),
      number('line.contactor.perHour', 'Operations an hour'),
      quantity('line.contactor.fuse', 'Fuses behind it', 'current', 'A'),
    ],
  },
  {
    id: 'capacitor',
    name: 'Power-factor capacitor',
    gap: 0,
    fields: [
      choice('line.capacitor.at', 'Where', [
        ['supply', 'supply side'],
        ['output', 'output'],
      ]),
    ],
  },
  {
    id: 'inputFilter',
    name: 'Input filter',
    gap: 0,
    fields: [
      quantity('line.inputFilter.leakage', 'Leakage', 'current', 'mA'),
      flag('line.inputFilter.sidesChecked', 'sides and earth checked', 'sides not checked'),
    ],
  },
  {
    id: 'reactor',
    name: 'Line reactor',
    gap: 0,
    fields: [number('line.reactor.pct', 'Reactance, %', '%')],
  },
  {
    id: 'device',
    name: 'Device',
    fields: [text('deviceSerial', 'Serial')],
    more: [number('place.carrierKHz', 'Carrier, kHz')],
  },
  {
    id: 'brakingUnit',
    name: 'Braking unit',
    gap: 1,
    fields: [
      quantity('line.brakingUnit.switchesAt', 'Switches at', 'voltage', 'V'),
      quantity('line.brakingUnit.mostA', 'Largest current', 'current', 'A'),
    ],
  },
  {
    id: 'resistor',
    name: 'Braking resistor',
    gap: 1,
    fields: [
      quantity('line.resistor.ohm', 'Resistance', 'resistance', 'Ω'),
      quantity('line.resistor.power', 'Rated', 'power', 'W'),
      flag(
        'line.resistor.thermalContact',
        'thermal contact trips the supply',
        'no thermal contact',
      ),
    ],
  },
  {
    id: 'outputFilter',
    name: 'Output filter',
    gap: 1,
    fields: [
      choice('line.outputFilter.kind', 'Kind', [
        ['choke', 'choke'],
        ['dvdt', 'dU/dt'],
        ['sine', 'sine'],
      ]),
      quantity('line.outputFilter.ratedA', 'Rated', 'current', 'A'),
    ],
  },
  {
    id: 'cable',
    name: 'Motor cable',
    fields: [
      quantity('cable.length', 'Length', 'length', 'm'),
      size('cable.size', 'Conductor'),
      flag('cable.screened', 'screened', 'not screened'),
    ],
    more: [
      size('cable.pe', 'Protective conductor'),
      flag('cable.doublePe', 'a second beside it', 'one protective conductor'),
      select('cable.table', 'Laid', [
        ['iecB2', 'conduit, trunking (B2)'],
        ['iecC', 'on a wall (C)'],
        ['iecE', 'tray, free air (E)'],
        ['nec75', 'raceway, 75 °C (NEC)'],
        ['own', 'by my own table'],
      ]),
      quantity('cable.ambient', 'Air around it', 'temperature', '°C'),
      number('cable.grouped', 'Circuits together'),
    ],
  },
  {
    id: 'motorIsolator',
    name: 'Isolator at the motor',
    gap: 2,
    fields: [
      flag('line.motorIsolator.earlyBreak', 'early-break contact wired', 'no early-break contact'),
    ],
  },
  {
    id: 'brake',
    name: 'Brake',
    gap: 3,
    fields: [
      quantity('line.brake.torque', 'Torque', 'torque', 'Nm'),
      choice('line.brake.supply', 'Fed from', [
        ['separate', 'supply, by relay'],
        ['driveOutput', 'drive output'],
      ]),
    ],
  },
  {
    id: 'load',
    name: 'Gear and load',
    fields: [
      choice('load.kind', 'Torque over speed', [
        ['constant', 'constant'],
        ['linear', 'linear'],
        ['square', 'square'],
      ]),
      number('load.torquePct', 'Torque, % of rated', '%'),
      number('load.breakawayPct', 'To break loose, %', '%'),
      number('load.gearRatio', 'Gear ratio i'),
      quantity('load.inertia', 'Inertia at load', 'inertia', 'kg·m²'),
      text('load.forwardMeans', 'Forward means', 'grain towards outlet'),
    ],
    more: [
      number('load.basePct', 'At every speed, %', '%'),
      number('load.gearEfficiency', 'Gear efficiency'),
      number('load.stopsPerHour', 'Stops an hour'),
      flag('load.overhauls', 'can drive the motor', 'never drives the motor'),
    ],
  },
];

/** Blocks beside the line. */
export const beside: readonly LineBlockSpec[] = [
  {
    id: 'control',
    name: 'Control supplies',
    fields: [
      quantity('control.transformer', 'Control transformer', 'apparentPower', 'VA'),
      quantity('control.supply24', '24 V supply', 'current', 'A'),
      number('control.reservePct', 'Reserve to keep, %', '%'),
      quantity('control.fuse', 'Fuse ahead of the wire', 'current', 'A'),
      size('control.wire', 'Control wire'),
    ],
  },
  {
    id: 'place',
    name: 'Place',
    fields: [
      quantity('place.altitude', 'Altitude', 'length', 'm'),
      quantity('place.ambient', 'Air around', 'temperature', '°C'),
      choice('place.zone', 'Dust or gas that can explode', [
        ['none', 'none'],
        ['dust', 'dust'],
        ['gas', 'gas'],
      ]),
      text('place.certificate', 'Certificate for the zone'),
      flag('place.earthLinkOut', 'filter earth link is out', 'filter earth link as delivered'),
    ],
    more: [
      quantity('place.surface', 'Free surface of the enclosure', 'area', 'm²'),
      quantity('place.otherLoss', 'Other losses inside', 'power', 'W'),
      quantity('place.inside', 'Highest inside', 'temperature', '°C'),
    ],
  },
];

/** Blocks that may be added in a gap of the line. */
export const optionalBlocks = fixed.filter((b) => b.gap !== undefined);

/** Blocks of a job's line, in their order. */
export function lineOf(plate: Job['plate']): LineBlockSpec[] {
  const line = plate.line ?? {};
  const order = fixed.filter((b) => b.gap === undefined || line[b.id as LineBlock] !== undefined);
  const at = order.findIndex((b) => b.gap === 3 || b.id === 'load');
  return [...order.slice(0, at), motor(plate.motor), ...order.slice(at)];
}

/** Value at a path of the plates. */
export function valueAt(plate: Job['plate'], path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], plate);
}

/** Puts a value at a path; `undefined` takes it away. Records on the way are made as needed. */
export function putAt(plate: Job['plate'], path: string, value: unknown): void {
  const keys = path.split('.');
  const last = keys.pop() as string;
  let at = plate as unknown as Record<string, unknown>;
  for (const key of keys) at = (at[key] ??= {}) as Record<string, unknown>;
  if (value === undefined) delete at[last];
  else at[last] = value;
}
